import { sha256 } from '@noble/hashes/sha2.js';
import type { Card } from '../scorecard/card';

/** A card's points, for a page on which a reader weighs the headings. */
export interface PageCard {
  headings: { name: string; weight: number; rule: string }[];
  contenders: { name: string; points: number[] }[];
}

/** Contenders that have points under every heading; null where fewer than two have. */
export function pageCard(card: Card, nameOf: (id: string) => string): PageCard | null {
  const headings = card.rows.map((r) => ({ name: r.heading.name, weight: r.heading.weight, rule: r.rule }));
  const contenders = card.contenders.flatMap(({ id }) => {
    const points = card.rows.map((r) => r.cells.get(id)!.points);
    return points.every((p) => p !== null) ? [{ name: nameOf(id), points: points as number[] }] : [];
  });
  return headings.length > 1 && contenders.length > 1 ? { headings, contenders } : null;
}

/**
 * What runs in the page: reads the sliders, adds the points up anew and writes who leads. The figures stand in the page
 * as data; nothing is asked for from anywhere.
 */
const script = `(function(){
var data=JSON.parse(document.getElementById('card-data').textContent);
var sliders=[].slice.call(document.querySelectorAll('[data-heading]'));
var said=document.getElementById('card-said');
function add(){
var w=sliders.map(function(s){return Number(s.value)});
var total=w.reduce(function(a,b){return a+b},0);
var exact=w.map(function(x){return total>0?100*x/total:0}),whole=exact.map(Math.floor);
var rest=total>0?100-whole.reduce(function(a,b){return a+b},0):0;
w.map(function(_,i){return i}).sort(function(i,j){return exact[j]-whole[j]-exact[i]+whole[i]||i-j}).slice(0,rest).forEach(function(i){whole[i]++});
sliders.forEach(function(s,i){s.nextElementSibling.textContent=whole[i]+' %'});
if(!(total>0)){said.textContent='Give a heading a weight.';return}
var scored=data.contenders.map(function(c,i){return{name:c.name,row:i,score:c.points.reduce(function(a,p,j){return a+p*w[j]/total},0)}});
scored.forEach(function(c){document.getElementById('card-total-'+c.row).textContent=c.score.toFixed(1)});
var best=Math.max.apply(null,scored.map(function(c){return c.score}));
var first=scored.filter(function(c){return c.score>best-1e-9}).map(function(c){return c.name});
said.textContent=first.length>1?first.join(' and ')+' are level.':first[0]+' leads, '+best.toFixed(1)+' of 10 points.';
}
sliders.forEach(function(s){s.disabled=false;s.addEventListener('input',add)});add();
})();`;

const base64 = (bytes: Uint8Array): string => {
  let text = '';
  for (const b of bytes) text += String.fromCharCode(b);
  return btoa(text);
};

/** What the page's policy allows to run: this script and no other. */
export const scriptHash = (): string => `'sha256-${base64(sha256(new TextEncoder().encode(script)))}'`;

/**
 * The part of a page in which a reader weighs the headings; without scripts it is a table.
 * @param escaped makes text safe in HTML
 */
export function weighYourself(card: PageCard, escaped: (text: string) => string): string {
  const rows = card.contenders
    .map(
      (c, i) =>
        `<tr><td>${escaped(c.name)}</td>${c.points.map((p) => `<td class="n">${p.toFixed(1)}</td>`).join('')}<td class="n strong" id="card-total-${i}"></td></tr>`,
    )
    .join('');
  const sliders = card.headings
    .map(
      (h, i) =>
        `<p><label for="w${i}">${escaped(h.name)} <span class="small">${escaped(h.rule)}</span></label><br><input id="w${i}" data-heading="${i}" type="range" min="0" max="100" value="${h.weight}" disabled> <output></output></p>`,
    )
    .join('');
  // Closing tags in names can't end the data early.
  const data = JSON.stringify(card).replaceAll('<', '\\u003c');
  return `<section><h2>Weigh it yourself</h2><p id="card-said" class="lead" aria-live="polite"></p>${sliders}
<div class="scroll" tabindex="0" role="group" aria-label="Points by heading"><table><thead><tr><th>contender</th>${card.headings.map((h) => `<th class="n">${escaped(h.name)}</th>`).join('')}<th class="n">all together</th></tr></thead><tbody>${rows}</tbody></table></div>
<script type="application/json" id="card-data">${data}</script><script>${script}</script></section>`;
}
