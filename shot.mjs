import { chromium } from '@playwright/test';

const base = 'http://127.0.0.1:4311';
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' });
page.on('console', (m) => {
  if (m.type() === 'error') console.log('console', m.text().slice(0, 300));
});
page.on('pageerror', (e) => console.log('pageerror', String(e).slice(0, 300)));
const steps = await import(process.argv[2]);
await steps.default(page, base);
await browser.close();
