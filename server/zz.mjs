import { chromium } from 'playwright-core'
const b=await chromium.launch({executablePath:'/usr/bin/chromium-headless-shell',args:['--no-sandbox','--disable-gpu','--disable-quic']})
const p=await b.newPage({viewport:{width:1280,height:800}})
p.on('pageerror',e=>console.log('ERR',e.message))
await p.goto('http://127.0.0.1:4199/'); 
const card = p.locator('[aria-label="Open Last crossing, heavy rain"]'); await card.waitFor({timeout:60000}); await card.click()
await p.waitForSelector('[data-testid=picture][data-settled=true]',{timeout:60000})
await p.keyboard.press('e'); await p.waitForTimeout(300)
const box = await p.locator('[data-testid="correct surface"]').boundingBox(); console.log(box)
const drag=async(x1,y1,x2,y2)=>{await p.mouse.move(x1,y1); await p.mouse.down(); await p.mouse.move((x1+x2)/2,(y1+y2)/2); await p.mouse.move(x2,y2); await p.mouse.up(); await p.waitForTimeout(300)}
const at=(u,v)=>[box.x+u*box.width, box.y+v*box.height]
await drag(...at(.3,.3),...at(.5,.6))
await p.screenshot({path:'/tmp/c1.png'})
const ring=p.locator('[aria-label^="Strength of the correction"]'); const r=await ring.boundingBox(); const cx=r.x+r.width/2, cy=r.y+r.height/2
await p.mouse.move(cx,cy); await p.mouse.down(); await p.mouse.move(cx+30,cy-60); await p.mouse.move(cx+50,cy-90); await p.waitForTimeout(1500)
await p.screenshot({path:'/tmp/c2.png'}); await p.mouse.up()
console.log(await ring.getAttribute('aria-label'))
await drag(...at(.65,.3),...at(.8,.5))
await p.waitForTimeout(1500); await p.screenshot({path:'/tmp/c3.png'})
await b.close()
