import type { ReactNode } from 'react';

interface Props {
  readonly title: ReactNode;
  /** What is done on this page, beside its title. */
  readonly actions?: ReactNode;
  /** What is chosen, in detail; the page is narrower where there is something. */
  readonly card?: ReactNode;
  readonly children: ReactNode;
}

/** A page: its title, what is done there, and what is chosen beside it. */
export const Page = ({ title, actions, card, children }: Props) => (
  <main className={`frame-page ${card ? 'with-card' : ''}`}>
    <div className="page">
      <div className="spread">
        <h1>{title}</h1>
        {actions}
      </div>
      {children}
    </div>
    {card}
  </main>
);
