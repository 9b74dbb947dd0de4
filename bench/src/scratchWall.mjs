import sharp from 'sharp'
import { readdirSync, existsSync } from 'node:fs'
const root='/tmp/wall/x/usr/share/wallpapers'
for (const n of readdirSync(root)) {
  const d=`${root}/${n}/contents/images`; if(!existsSync(d)) continue
  const fs=readdirSync(d).map(f=>({f,w:Number(f.split('x')[0])||0})).sort((a,b)=>b.w-a.w)
  try { await sharp(`${d}/${fs[0].f}`).resize(1600,1600,{fit:'inside'}).jpeg({quality:92}).toFile(`/tmp/wall/small/${n}.jpg`) } catch(e){console.log(n,e.message)}
}
