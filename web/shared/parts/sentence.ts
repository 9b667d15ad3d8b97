/** As a sentence begins. */
export const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
