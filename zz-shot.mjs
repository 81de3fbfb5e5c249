import { chromium } from 'playwright-core';
export const URL='http://localhost:4711';
export async function open(fn,{lang='en',dark=false}={}){
  const b=await chromium.launch({executablePath:'/usr/bin/chromium',args:['--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync']});
  const c=await b.newContext({viewport:{width:1280,height:800},colorScheme:dark?'dark':'light'});
  await c.addCookies([{name:'mossbell.language',value:lang,url:URL}]);
  const page=await c.newPage();
  page.on('pageerror',e=>console.log('PAGEERROR',e.message));
  page.on('console',m=>m.type()==='error'&&console.log('CONSOLE',m.text().slice(0,300)));
  try{await fn(page)}catch(e){console.log('FAIL',e.message.split('\n').slice(0,6).join('\n'));await page.screenshot({path:'/tmp/fail.png'})}finally{await b.close()}
}
export async function project(page,name){
  const list=await (await fetch(URL+'/api/projects')).json();
  const p=list.find(x=>x.name===name);
  const got=await (await fetch(URL+'/api/projects/'+p.id)).json();
  const made=await (await fetch(URL+'/api/projects',{method:'POST',headers:{'content-type':'application/json',origin:URL},body:JSON.stringify(got.project)})).json();
  await page.goto(URL+'/project/'+made.id);
  await page.locator('[data-ready]').waitFor();
  return made.id;
}
