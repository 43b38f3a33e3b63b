import { chromium } from '@playwright/test';
const [,, size = 'wide', ...acts] = process.argv;
const vp = size === 'wide' ? { width: 1280, height: 800 } : { width: 390, height: 844 };
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await (await browser.newContext({ viewport: vp, hasTouch: size !== 'wide', colorScheme: process.env.DARK ? 'dark' : 'light' })).newPage();
page.on('console', (m) => m.type() === 'error' && console.log('ERR', m.text().slice(0, 300)));
page.on('pageerror', (e) => console.log('PAGEERR', String(e).slice(0, 400)));
await page.goto('http://localhost:8731/');
let n = 0;
for (const act of acts) {
  const [what, arg] = act.split('=');
  if (what === 'id') await page.getByTestId(arg).first().click({ timeout: 15000 });
  else if (what === 'name') await page.getByRole('button', { name: new RegExp(arg) }).first().click({ timeout: 15000 });
  else if (what === 'radio') await page.getByRole('radio', { name: arg }).first().click();
  else if (what === 'wait') await page.waitForTimeout(Number(arg));
  else if (what === 'click') { const [x, y] = arg.split(',').map(Number); await page.mouse.click(x, y); }
  else if (what === 'drag') { const [x, y, u, v] = arg.split(',').map(Number); await page.mouse.move(x, y); await page.mouse.down(); await page.mouse.move((x + u) / 2, (y + v) / 2); await page.mouse.move(u, v); await page.mouse.up(); }
  else if (what === 'key') await page.keyboard.press(arg);
  else if (what === 'type') await page.keyboard.type(arg);
  else if (what === 'shot') await page.screenshot({ path: `/tmp/h/${arg}.png` });
}
await browser.close();
