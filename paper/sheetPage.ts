/** How the one-file sheet looks: big targets, light or dark as the phone is. */
export const PAGE_STYLE = `
:root{color-scheme:light dark;--paper:#F4F1EA;--ink:#1C2B33;--line:#D8D2C4;--good:#2F6B3A;--warn:#7A5600;--bad:#A3262A}
@media (prefers-color-scheme:dark){:root{--paper:#10181C;--ink:#ECE7DB;--line:#33424A;--good:#8CCB95;--warn:#E6BE5A;--bad:#FF8F87}}
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
.figures{padding-left:40px;list-style:none}.figures li{display:flex;flex-wrap:wrap;gap:4px 12px;align-items:center;padding:4px 0}
.figures label{display:flex;flex-wrap:wrap;gap:4px 12px;align-items:center}.figures span{font-family:monospace;min-width:15em}
.figures input{font:inherit;font-family:monospace;min-height:44px;width:8em}.verdict{min-width:5em}
.verdict.good{color:var(--good)}.verdict.off{color:var(--warn)}.verdict.wrong{color:var(--bad)}
.turn{display:none;position:fixed;left:0;right:0;bottom:0;margin:0;padding:8px 16px;gap:8px;background:var(--paper);border-top:1px solid var(--line)}
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
const scales={k:1000,m:.001,u:1e-6,'\u00b5':1e-6,M:1e6};
const figure=(text,unit,quantity)=>{let t=text.trim().replace(/\\s+/g,'').replace(/\u2212/g,'-').replace(',','.');const level=quantity==='rms'&&/^([+-]?\\d+(?:\\.\\d+)?)dB(u|V)?$/i.exec(t);if(level)return((level[2]||'').toUpperCase()==='V'?1:Math.sqrt(.6))*10**(level[1]/20);if(t.toLowerCase().endsWith(unit.toLowerCase()))t=t.slice(0,-unit.length);const m=/^([+-]?\\d*\\.?\\d+)([kmM\u00b5]?)$/.exec(t);return m?m[1]*(scales[m[2]]||1):null};
const judged=(r)=>{const li=r.closest('li'),b=li.querySelector('.verdict');b.className='verdict';b.textContent='';if(!r.value.trim())return;const v=figure(r.value,li.dataset.unit,r.dataset.quantity);if(v===null||Number.isNaN(v)){b.textContent='enter a value';return}const far=Math.abs(v-li.dataset.value)/li.dataset.within;const word=far<=1?'good':far<=3?'off':'wrong';b.classList.add(word);b.textContent=(word==='good'?'\u2713 ':word==='off'?'\u2248 ':'\u2717 ')+word};
const show=()=>{let done=0;for(const [i,s] of steps.entries()){const t=ticks[idOf(s)]||{};s.querySelector('[data-tick]').checked=!!t.done;for(const r of s.querySelectorAll('[data-read]')){if(document.activeElement!==r)r.value=(t.reads||{})[r.dataset.quantity]||'';judged(r)}s.classList.toggle('done',!!t.done);if(t.done)done++;s.hidden=single&&i!==at}
for(const x of document.querySelectorAll('section'))x.hidden=single&&!x.contains(steps[at]);
document.body.classList.toggle('single',single);document.getElementById('count').textContent=done+' of '+steps.length;document.getElementById('one').setAttribute('aria-pressed',single)};
document.addEventListener('change',(e)=>{const id=e.target.dataset.tick;if(!id)return;ticks[id]={...ticks[id],done:e.target.checked,at:Date.now()};keep();show()});
document.addEventListener('input',(e)=>{if(e.target.dataset.read)judged(e.target)});
document.addEventListener('change',(e)=>{const id=e.target.dataset.read;if(!id)return;const t=ticks[id]||{done:false};ticks[id]={...t,reads:{...t.reads,[e.target.dataset.quantity]:e.target.value},at:Date.now()};keep()});
document.getElementById('one').onclick=()=>{single=!single;const open=steps.findIndex((s)=>!(ticks[idOf(s)]||{}).done);at=open<0?0:open;show()};
document.getElementById('next').onclick=()=>{at=Math.min(steps.length-1,at+1);show()};
document.getElementById('back').onclick=()=>{at=Math.max(0,at-1);show()};
document.getElementById('save').onclick=()=>{const a=document.createElement('a');a.href=URL.createObjectURL(new Blob([JSON.stringify({format:'fenvo.ticks',version:1,...SHEET,ticks},null,2)],{type:'application/json'}));a.download=SHEET.patch+'.fenvo-ticks.json';a.click()};
const codeOf=()=>{const when=Object.values(ticks).reduce((m,t)=>Math.max(m,t.at||0),0);return ['fenvo-ticks','1',SHEET.mark,when.toString(36),steps.map((s)=>(ticks[idOf(s)]||{}).done?'1':'0').join(''),steps.flatMap((s,i)=>Object.entries((ticks[idOf(s)]||{}).reads||{}).flatMap(([q,r])=>r?[i+':'+q+'='+encodeURIComponent(r)]:[])).join(';')].join(' ')};
const paint=()=>{const place=document.getElementById('codeplace');place.hidden=document.getElementById('code').getAttribute('aria-pressed')!=='true';if(place.hidden)return;place.textContent='';const text=codeOf();place.dataset.code=text;
if(text.length>1200){place.textContent='Too much for a code: save the ticks as a file.';return}
const q=qrcode(0,'M');q.addData(text);q.make();const n=q.getModuleCount();let d='';for(let y=0;y<n;y++)for(let x=0;x<n;x++)if(q.isDark(y,x))d+='M'+x+' '+y+'h1v1h-1z';
const svg=document.createElementNS('http://www.w3.org/2000/svg','svg');svg.setAttribute('viewBox','-4 -4 '+(n+8)+' '+(n+8));svg.setAttribute('role','img');svg.setAttribute('aria-label','QR code of the ticks');svg.setAttribute('shape-rendering','crispEdges');const path=document.createElementNS('http://www.w3.org/2000/svg','path');path.setAttribute('d',d);path.setAttribute('fill','#000');svg.append(path);place.append(svg);const p=document.createElement('p');p.textContent='Photograph the code and import the photo on your computer, in the patch sheet under Import ticks.';place.append(p)};
document.getElementById('code').onclick=(e)=>{e.target.setAttribute('aria-pressed',e.target.getAttribute('aria-pressed')!=='true');paint()};
document.addEventListener('change',paint);document.addEventListener('input',paint);
const counted=(a,since)=>since?Object.fromEntries(Object.entries(a).filter(([,t])=>t.at>since)):a;
const merged=(a,b)=>{const m={...a};for(const [id,t] of Object.entries(b))if(!m[id]||t.at>=m[id].at)m[id]=t;return m};
let due=0;const send=()=>{if(!SYNC)return;clearTimeout(due);due=setTimeout(()=>{fetch(SYNC,{method:'PUT',headers:{'Content-Type':'application/json'},body:JSON.stringify({ticks})}).then((r)=>r.ok?r.json():Promise.reject()).then((k)=>{ticks=merged(counted(ticks,k.since),k.ticks);keep();show();document.body.dataset.sent='true'}).catch(()=>{document.body.dataset.sent='false';due=setTimeout(send,4000)})},300)};
document.addEventListener('change',send);send();
const sleepless=new NoSleep();document.getElementById('awake').onclick=(e)=>{const on=e.target.getAttribute('aria-pressed')!=='true';if(on)sleepless.enable();else sleepless.disable();e.target.setAttribute('aria-pressed',on)};
show();
`;
