import { chromium } from '@playwright/test';
const [,, path, out, theme='light', ...acts] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args:['--no-sandbox'] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
if (theme==='dark') await p.addInitScript(() => localStorage.setItem('theme','dark'));
p.on('console', m => { if (m.type()==='error') console.log('console:', m.text()); });
p.on('pageerror', e => console.log('pageerror:', e.message));
await p.goto('http://127.0.0.1:3300'+path, { waitUntil: 'networkidle' });
for (const a of acts) { const [k, ...r] = a.split('='); const v=r.join('=');
 if (k==='click') await p.getByText(v, {exact:true}).first().click();
 if (k==='btn') await p.getByRole('button',{name:v,exact:true}).first().click();
 if (k==='type') await p.getByLabel('Entry line').pressSequentially(v);
 if (k==='key') await p.keyboard.press(v);
 if (k==='wait') await p.waitForTimeout(+v);
 if (k==='file') { const [l,f]=v.split('|'); await p.getByLabel(l).setInputFiles(f); }
 if (k==='sel') { const [l,o]=v.split('|'); await p.getByLabel(l,{exact:true}).selectOption({label:o}); }
 await p.waitForTimeout(300);
}
await p.screenshot({ path: out });
await b.close();
