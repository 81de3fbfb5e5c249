import {open,project} from './zz-shot.mjs';
await open(async page=>{
  await project(page,'Drip count').catch(()=>project(page,'Stop short'));
  await page.getByRole('button',{name:'Step',exact:true}).click();
  await page.getByTestId('inside').waitFor();
  for(let i=0;i<6;i++){await page.getByRole('button',{name:'Into'}).click();await page.waitForTimeout(150)}
  await page.waitForTimeout(500);
  await page.screenshot({path:'/tmp/a.png'});
});
