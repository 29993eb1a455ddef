const DATES = ['10 Oct', '14 Nov', '12 Dec', '20 Feb', '17 Apr', '29 May', '19 Jun'];

/** Minutes of rehearsal by section and evening. */
const SECTIONS: readonly (readonly [string, readonly number[]])[] = [
  ['First violins', [540, 480, 600, 300, 540, 360, 480]],
  ['Second violins', [540, 480, 600, 300, 540, 360, 480]],
  ['Violas', [510, 480, 570, 270, 510, 330, 450]],
  ['Cellos and basses', [510, 480, 570, 300, 510, 330, 450]],
  ['Woodwind', [420, 0, 480, 240, 450, 300, 390]],
  ['Brass', [360, 0, 420, 150, 390, 270, 330]],
  ['Percussion', [240, 0, 330, 90, 300, 210, 270]],
];

const PARAGRAPHS = [
  'The season that begins in October is the longest we have planned: seven concerts, three of them with a choir, and for the first time one under the open sky. Rehearsals move to Mondays, since the Corn Exchange has let its Tuesdays to the dancers, who have been patient with us for eleven years.',
  'Parts are ready in the library from the first of September. Please take your own only, and sign for it; last year four desks of violas were found at the end of May in one boot, together with a sandwich.',
  'The Winter Concert begins at seven and not at half past, so that the younger singers are home before their parents fall asleep. The general rehearsal is on the morning of the day, with the choir on its risers from ten o’clock.',
  'Whoever comes by car may stand behind the Town Hall from five, but not before, because of the market. The gate is locked at eleven, and the caretaker goes home with the key.',
];

const table = `<table class="minutes"><thead><tr><th>Section</th>${DATES.map((date) => `<th>${date}</th>`).join('')}<th>In all</th></tr></thead><tbody>${SECTIONS.map(
  ([section, minutes]) =>
    `<tr><th>${section}</th>${minutes.map((one) => `<td>${one === 0 ? '–' : `${one} min`}</td>`).join('')}<td>${minutes.reduce((all, one) => all + one, 0)} min</td></tr>`,
).join('')}</tbody></table>`;

/** A page of the orchestra's own site, with all that stands around its article. */
export const seasonPage = (): Buffer =>
  Buffer.from(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>News for players</title>
<link rel="canonical" href="https://orchestra.example/players/news">
<style>
body{margin:0;font:16px/1.5 Arial,sans-serif;color:#222;background:#f6f1e7}
nav{background:#7a2e1f;color:#fff;padding:18px 24px}nav a{color:#fff;margin-right:22px}
main{display:flex;gap:24px;padding:24px}article{flex:3;background:#fff;padding:24px}aside{flex:1}
aside section{background:#e7dfcf;padding:14px;margin-bottom:14px}
.minutes{border-collapse:collapse}.minutes th,.minutes td{border:1px solid #bbb;padding:8px 14px;white-space:nowrap;text-align:right}
.minutes th:first-child{text-align:left}footer{background:#333;color:#ddd;padding:30px 24px}
</style></head><body>
<nav>${['Concerts', 'Tickets', 'Players', 'Friends', 'Hire', 'Contact'].map((name) => `<a href="/${name.toLowerCase()}">${name}</a>`).join('')}</nav>
<main><article><h1>News for players</h1><p class="byline">By Ada Reed, orchestra manager</p>
${PARAGRAPHS.slice(0, 2)
  .map((one) => `<p>${one}</p>`)
  .join('')}
<h2>Minutes of rehearsal</h2><p>What each section is asked for, concert by concert; the full plan is in <a href="https://orchestra.example/players/plan">the rehearsal timetable</a>.</p>${table}
<h2>The Winter Concert</h2><p>${PARAGRAPHS[2]}</p><h2>Cars</h2><p>${PARAGRAPHS[3]}</p></article>
<aside class="sidebar">${['Become a friend of the orchestra', 'Season tickets from € 56', 'Play with us: open rehearsal on 5 September', 'Hire a cello', 'Our programmes as booklets'].map((one) => `<section><h3>${one}</h3><p>Read more about it on this page, or ask at the box office on any morning but Sunday.</p></section>`).join('')}</aside></main>
<footer><p>Marrowbridge Town Orchestra, The Old Corn Exchange, 3 Mill Lane. All rights reserved.</p></footer>
</body></html>`);
