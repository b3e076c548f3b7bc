// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/page.h"

namespace chispa::node {

const std::string& settingsPage() {
  static const std::string page = R"PAGE(<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Node</title>
<style>
 body { font: 15px system-ui, sans-serif; margin: 0 auto; max-width: 60em; padding: 1.5em; background: #1a1a1c; color: #e6e3dd; }
 h1 { font-size: 1.4em; } h2 { font-size: 1.05em; margin: 1.6em 0 .4em; color: #9a968e; font-weight: 600; }
 canvas { display: block; width: 100%; image-rendering: pixelated; background: #121214; border-radius: 4px; }
 table { border-collapse: collapse; width: 100%; } td, th { text-align: left; padding: .25em .8em .25em 0; font-variant-numeric: tabular-nums; border-bottom: 1px solid #3a3a40; }
 textarea { width: 100%; height: 14em; background: #232326; color: inherit; border: 1px solid #3a3a40; border-radius: 4px; font: 13px ui-monospace, monospace; }
 button { background: #2c2c30; color: inherit; border: 1px solid #3a3a40; border-radius: 4px; padding: .4em 1em; }
 button.on { border-color: #e3b341; } #scenes, #contacts { margin: .4em 0; } #scenes button, #contacts button { margin-right: .5em; }
 #said { min-height: 1.5em; color: #e3b341; }
</style></head><body>
<h1 id="name">Node</h1><div id="facts"></div>
<h2>Strips</h2><div id="strips">No port is set up yet.</div>
<div id="memory" hidden><h2>Its own memory</h2><p id="plays"></p><div id="scenes"></div><div id="contacts"></div></div>
<h2>What arrives</h2><table id="universes"></table>
<h2>Settings</h2><textarea id="settings" aria-label="Settings, as JSON"></textarea><button id="save">Save settings</button>
<h2>Faults</h2><textarea id="faults" aria-label="Faults, as JSON" style="height:8em"></textarea><button id="strike">Set faults</button>
<p id="said" role="status"></p>
<script>
const at = id => document.getElementById(id);
const cell = (row, text, kind) => { const c = document.createElement(kind || 'td'); c.textContent = text; row.append(c); };
async function look() {
  const state = await (await fetch('/state')).json();
  at('name').textContent = document.title = state.name;
  at('facts').textContent = state.listen + ' · ' + state.ports_in_all + ' ports';
  if (state.ports.length) at('strips').replaceChildren(...state.ports.map(port => {
    const box = document.createElement('div'), words = document.createElement('small'), picture = document.createElement('canvas');
    words.textContent = 'port ' + port.port + ' · ' + port.shows.length + ' px';
    picture.width = Math.max(1, port.shows.length); picture.height = 1; picture.style.height = '14px';
    const draw = picture.getContext('2d');
    port.shows.forEach((colour, i) => { draw.fillStyle = colour; draw.fillRect(i, 0, 1, 1); });
    box.append(words, picture); return box;
  }));
  const table = at('universes'), head = document.createElement('tr');
  for (const word of ['protocol', 'universe', 'packets', 'lost', 'sources', 'source']) cell(head, word, 'th');
  table.replaceChildren(head, ...state.universes.map(u => { const row = document.createElement('tr');
    for (const value of [u.protocol, u.universe, u.packets, u.lost, u.sources, u.terminated ? 'ended' : u.source]) cell(row, value); return row; }));
}
let drawn = '';
const button = (words, path, body) => { const b = document.createElement('button'); b.textContent = words;
  b.onclick = async () => { const answer = await fetch(path, { method: 'PUT', body: JSON.stringify(body) });
    at('said').textContent = answer.ok ? '' : await answer.text(); remember(); }; return b; };
async function remember() {
  const answer = await fetch('/memory');
  if (!answer.ok) return;
  const memory = await answer.json(), scenes = memory.content.scenes;
  at('memory').hidden = false;
  const shows = !memory.whole ? 'Writing broke off: it holds nothing whole, and plays nothing.'
    : memory.playing ? 'Scene ' + memory.playing + ', ' + scenes[memory.playing - 1].name : scenes.length ? 'Dark' : 'Empty';
  at('plays').textContent = shows + ' · ' + (memory.clock.set ? 'its clock shows ' + memory.clock.utc : 'its clock was never set');
  const key = JSON.stringify(scenes.map(scene => scene.name)) + memory.limits.contacts;
  if (key !== drawn) {
    drawn = key;
    at('scenes').replaceChildren(button('Dark', '/memory/play', { scene: 0 }),
      ...scenes.map((scene, i) => button((i + 1) + ' ' + scene.name, '/memory/play', { scene: i + 1 })));
    at('contacts').replaceChildren(...Array.from({ length: memory.limits.contacts }, (_, i) =>
      button('Contact ' + (i + 1), '/memory/contact', { contact: i + 1 })));
  }
  [...at('scenes').children].forEach((b, i) => b.className = i === memory.playing ? 'on' : '');
}
async function fill(id, path) { at(id).value = JSON.stringify(await (await fetch(path)).json(), null, 1); }
async function put(id, path) {
  const answer = await fetch(path, { method: 'PUT', body: at(id).value });
  at('said').textContent = answer.ok ? 'Saved.' : await answer.text();
  if (answer.ok) fill(id, path);
}
at('save').onclick = () => put('settings', '/settings');
at('strike').onclick = () => put('faults', '/faults');
fill('settings', '/settings'); fill('faults', '/faults');
look(); remember(); setInterval(() => remember().catch(() => {}), 1000);
setInterval(() => look().catch(() => { at('said').textContent = 'The node does not answer.'; }), 500);
</script></body></html>
)PAGE";
  return page;
}

}  // namespace chispa::node
