import {open,project} from './zz-shot.mjs';
await open(async page=>{
  await project(page,'Blind on the path');
  await page.getByLabel('Speed').selectOption({label:'max'});
  await page.getByTestId('rehearse').click();
  await page.getByRole('button',{name:/finding/}).isEnabled();
  await page.waitForFunction(()=>document.querySelector('[data-testid=clock]').textContent>'00:03',{timeout:60000});
  await page.waitForTimeout(4000);
  await page.getByRole('button',{name:/finding/}).click();
  await page.waitForTimeout(600);
  await page.screenshot({path:'/tmp/a.png'});
  await page.getByRole('button',{name:'Why?'}).first().click();
  await page.waitForTimeout(600);
  await page.screenshot({path:'/tmp/b.png'});
});
