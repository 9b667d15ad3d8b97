import { chromium } from 'playwright';

const [, , url, out, ...acts] = process.argv;
const b = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
});
const p = await b.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: process.env.DARK ? 'dark' : 'light' });
p.on('console', (m) => {
  if (m.type() === 'error') console.log('console:', m.text());
});
p.on('pageerror', (e) => console.log('pageerror:', e.message));
await p.goto('http://127.0.0.1:4455' + url);
await p.waitForTimeout(Number(process.env.WAIT ?? 4000));
for (const a of acts) {
  await eval(`(async()=>{${a}})()`);
  await p.waitForTimeout(1200);
}
await p.screenshot({ path: out, fullPage: Boolean(process.env.FULL) });
await b.close();
