/** How the one-file sheet looks: big targets, light or dark as the phone is. */
export const PAGE_STYLE = `
:root{color-scheme:light dark;--paper:#F4F1EA;--ink:#1C2B33;--line:#D8D2C4;--good:#2F6B3A}
@media (prefers-color-scheme:dark){:root{--paper:#10181C;--ink:#ECE7DB;--line:#33424A;--good:#8CCB95}}
*{box-sizing:border-box}body{margin:0;background:var(--paper);color:var(--ink);font:18px/1.45 sans-serif}
header{position:sticky;top:0;background:var(--paper);border-bottom:1px solid var(--line);padding:8px 16px;z-index:1}
h1{font-size:20px;margin:0}h2{font-size:18px;margin:20px 0 8px}main{max-width:720px;margin:0 auto;padding:8px 16px 96px}
.bar{display:flex;flex-wrap:wrap;gap:8px;align-items:center;margin:8px 0 0}
button{font:inherit;min-height:44px;padding:0 14px;border:1px solid var(--line);border-radius:4px;background:none;color:inherit}
button[aria-pressed=true]{outline:2px solid var(--good)}
ol,ul{margin:0;padding-left:20px}ol{list-style:none;padding:0}
.step{border-top:1px solid var(--line);padding:10px 0}.step[hidden]{display:none}
.tick{display:flex;gap:12px;align-items:flex-start;min-height:44px}.tick input{width:28px;height:28px;flex:none;margin:0}
.done .tick span{color:var(--good);text-decoration:line-through}
.knobs{display:flex;flex-wrap:wrap;gap:12px;padding-left:40px}figure{margin:0;width:84px;text-align:center;font-size:14px}figure b{display:block;font-family:monospace}
.figures{padding-left:40px;list-style:none;font-family:monospace}.read{display:block;padding:6px 0 0 40px}
.read input{font:inherit;min-height:44px;width:10em}.turn{display:none;position:fixed;left:0;right:0;bottom:0;margin:0;padding:8px 16px;gap:8px;background:var(--paper);border-top:1px solid var(--line)}
#codeplace{padding:8px 0;text-align:center}#codeplace svg{width:min(80vw,340px);background:#fff}
.single .turn{display:flex}.single .turn button{flex:1;min-height:56px}
@media print{header button,.turn{display:none}.step{break-inside:avoid}}
`;

/** What the one-file sheet does: keeps ticks and readings in the browser, and hands them over as a file. */
export const PAGE_SCRIPT = `
const key='fenvo sheet '+SHEET.patch+' '+(SHEET.rack||'');
let ticks={};try{ticks=JSON.parse(localStorage.getItem(key))||{}}catch{}
const steps=[...document.querySelectorAll('.step')];
const keep=()=>{try{localStorage.setItem(key,JSON.stringify(ticks))}catch{}};
const idOf=(s)=>s.dataset.step;
let at=0,single=false;
const show=()=>{let done=0;for(const [i,s] of steps.entries()){const t=ticks[idOf(s)]||{};s.querySelector('[data-tick]').checked=!!t.done;const r=s.querySelector('[data-read]');if(r&&document.activeElement!==r)r.value=t.read||'';s.classList.toggle('done',!!t.done);if(t.done)done++;s.hidden=single&&i!==at}
for(const x of document.querySelectorAll('section'))x.hidden=single&&!x.contains(steps[at]);
document.body.classList.toggle('single',single);document.getElementById('count').textContent=done+' of '+steps.length;document.getElementById('one').setAttribute('aria-pressed',single)};
document.addEventListener('change',(e)=>{const id=e.target.dataset.tick;if(!id)return;ticks[id]={...ticks[id],done:e.target.checked,at:Date.now()};keep();show()});
document.addEventListener('input',(e)=>{const id=e.target.dataset.read;if(!id)return;const t=ticks[id]||{done:false};ticks[id]={...t,read:e.target.value,at:Date.now()};keep()});
document.getElementById('one').onclick=()=>{single=!single;const open=steps.findIndex((s)=>!(ticks[idOf(s)]||{}).done);at=open<0?0:open;show()};
document.getElementById('next').onclick=()=>{at=Math.min(steps.length-1,at+1);show()};
document.getElementById('back').onclick=()=>{at=Math.max(0,at-1);show()};
document.getElementById('save').onclick=()=>{const a=document.createElement('a');a.href=URL.createObjectURL(new Blob([JSON.stringify({format:'fenvo.ticks',version:1,...SHEET,ticks},null,2)],{type:'application/json'}));a.download=SHEET.patch+'.fenvo-ticks.json';a.click()};
const codeOf=()=>{const when=Object.values(ticks).reduce((m,t)=>Math.max(m,t.at||0),0);return ['fenvo-ticks','1',SHEET.mark,when.toString(36),steps.map((s)=>(ticks[idOf(s)]||{}).done?'1':'0').join(''),steps.flatMap((s,i)=>{const r=(ticks[idOf(s)]||{}).read;return r?[i+'='+encodeURIComponent(r)]:[]}).join(';')].join(' ')};
const paint=()=>{const place=document.getElementById('codeplace');place.hidden=document.getElementById('code').getAttribute('aria-pressed')!=='true';if(place.hidden)return;place.textContent='';const text=codeOf();place.dataset.code=text;
if(text.length>1200){place.textContent='Too much for a code: save the ticks as a file.';return}
const q=qrcode(0,'M');q.addData(text);q.make();const n=q.getModuleCount();let d='';for(let y=0;y<n;y++)for(let x=0;x<n;x++)if(q.isDark(y,x))d+='M'+x+' '+y+'h1v1h-1z';
const svg=document.createElementNS('http://www.w3.org/2000/svg','svg');svg.setAttribute('viewBox','-4 -4 '+(n+8)+' '+(n+8));svg.setAttribute('role','img');svg.setAttribute('aria-label','QR code of the ticks');svg.setAttribute('shape-rendering','crispEdges');const path=document.createElementNS('http://www.w3.org/2000/svg','path');path.setAttribute('d',d);path.setAttribute('fill','#000');svg.append(path);place.append(svg);const p=document.createElement('p');p.textContent='Photograph the code and import the photo on your computer, in the patch sheet under Import ticks.';place.append(p)};
document.getElementById('code').onclick=(e)=>{e.target.setAttribute('aria-pressed',e.target.getAttribute('aria-pressed')!=='true');paint()};
document.addEventListener('change',paint);document.addEventListener('input',paint);
const merged=(a,b)=>{const m={...a};for(const [id,t] of Object.entries(b))if(!m[id]||t.at>=m[id].at)m[id]=t;return m};
let due=0;const send=()=>{if(!SYNC)return;clearTimeout(due);due=setTimeout(()=>{fetch(SYNC,{method:'PUT',headers:{'Content-Type':'application/json'},body:JSON.stringify({ticks})}).then((r)=>r.ok?r.json():Promise.reject()).then((k)=>{ticks=merged(ticks,k.ticks);keep();show();document.body.dataset.sent='true'}).catch(()=>{document.body.dataset.sent='false';due=setTimeout(send,4000)})},300)};
document.addEventListener('change',send);document.addEventListener('input',send);send();
const sleepless=new NoSleep();document.getElementById('awake').onclick=(e)=>{const on=e.target.getAttribute('aria-pressed')!=='true';if(on)sleepless.enable();else sleepless.disable();e.target.setAttribute('aria-pressed',on)};
show();
`;
