import {open,project,URL} from './zz-shot.mjs';
for(let i=0;i<5;i++) await open(async page=>{
  const id=await project(page,'The patient gate');
  await page.getByRole('button',{name:'More',exact:true}).click();
  await page.getByRole('button',{name:'Make it a text project'}).click();
  await page.waitForTimeout(2500);
  const a=await page.getByTestId('text').count();
  if(!a){ await page.getByRole('button',{name:'Behind'}).click(); await page.waitForTimeout(800); console.log('after click', await page.getByTestId('text').count(), await page.getByRole('button',{name:'Behind'}).getAttribute('aria-pressed'));}
  console.log(i,a);
});
