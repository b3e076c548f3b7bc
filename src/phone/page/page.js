// SPDX-License-Identifier: GPL-3.0-or-later
// The phone page: shows what the computer says, tells it what is touched. It holds no truth of its own.
'use strict';

const $ = (id) => document.getElementById(id);
let state = {};

// The page speaks the language of the window: its own words stand in English, here and in index.html, and are
// looked up; what the computer says is in its language already.
const kWords = {
  es: {
    'No answer from the computer. Trying again …': 'El ordenador no responde. Reintentando …',
    'This phone is not paired': 'Este teléfono no está emparejado',
    'Open Live ▸ Phone page in Chispa and scan the code that is shown there.':
        'Abre En vivo ▸ Página para el teléfono en Chispa y escanea el código que se muestra allí.',
    'The light as it is now': 'La luz tal como está ahora',
    'Hold off tonight': 'Suspender esta noche',
    '30 min longer': '30 min más',
    'Dark': 'Oscuro',
    'Light is OFF': 'Luz APAGADA',
    'Light is ON': 'Luz ENCENDIDA',
    'Palette of what plays': 'Paleta de lo que suena',
    'The port before': 'El puerto anterior',
    'The next port': 'El puerto siguiente',
    'What is to be found?': '¿Qué hay que encontrar?',
    'Back': 'Atrás',
    'Locate: it blinks': 'Localizar: parpadea',
    'Positions by camera': 'Posiciones con cámara',
    'Film the LEDs while they blink, and send the video.': 'Graba los LED mientras parpadean y envía el vídeo.',
    'Send a video': 'Enviar un vídeo',
    'Stop sending': 'Dejar de enviar',
    'How much of the video is sent': 'Cuánto se ha enviado del vídeo',
    'Pages': 'Páginas',
    'Looks': 'Ambientes',
    'Levels': 'Niveles',
    'Bench': 'Banco',
    'Master': 'General',
    '1 phone': '1 teléfono',
    '%1 phones': '%1 teléfonos',
    'Tonight: %1': 'Esta noche: %1',
    '%1 % of %2 MB sent': '%1 % de %2 MB enviado',
    'Stopped. Nothing was kept.': 'Detenido. No se guardó nada.',
    'The computer does not answer. Send it again.': 'El ordenador no responde. Vuelve a enviarlo.',
    'Not taken: %1.': 'No se aceptó: %1.',
    'The video is empty.': 'El vídeo está vacío.',
    'The computer has it: see Positions by camera there.':
        'El ordenador lo tiene: mira allí Posiciones con cámara.',
  },
};
let language = 'en';

/// `words` in the page's language, with `args` in the places %1, %2.
function say(words, ...args) {
  const form = (kWords[language] || {})[words] || words;
  return args.reduce((text, arg, i) => text.replace(`%${i + 1}`, arg), form);
}

/// The document's own words, each with the node that says it: a text, or an attribute. Names come later, and
/// stay what they are.
const own = [];
const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
while (texts.nextNode())
  if (texts.currentNode.data.trim()) own.push([texts.currentNode, texts.currentNode.data.trim()]);
for (const name of ['alt', 'aria-label'])
  for (const one of document.querySelectorAll(`[${name}]`))
    own.push([one.getAttributeNode(name), one.getAttribute(name)]);

function translate(to) {
  if (to === language) return;
  language = to;
  document.documentElement.lang = to;
  for (const [node, words] of own) node.nodeValue = say(words);
}

/// Pads that a finger is on, by the pointer's number.
const held = new Map();

async function tell(command) {
  try {
    const answer = await fetch('do', {
      method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify(command),
    });
    if (answer.status === 401) showRefused();
  } catch (error) {
    $('lost').hidden = false;
  }
}

// Pairing: the token stands behind the # of the address, which no server ever sees or writes down.
async function pair() {
  const token = location.hash.slice(1);
  if (token) {
    history.replaceState(null, '', location.pathname);
    const answer = await fetch('pair', {method: 'POST', body: token});
    if (!answer.ok) return showRefused();
  }
  listen();
}

function showRefused() {
  for (const page of ['looks', 'levels', 'bench']) $(page).hidden = true;
  document.querySelector('nav').hidden = true;
  $('refused').hidden = false;
}

function listen() {
  const events = new EventSource('events');
  events.onmessage = (message) => {
    $('lost').hidden = true;
    state = JSON.parse(message.data);
    show();
  };
  events.onerror = async () => {
    $('lost').hidden = false;
    // Closed for good: refused, or the page is off. EventSource itself tries again after all else.
    if (events.readyState !== EventSource.CLOSED) return;
    const answer = await fetch('state').catch(() => null);
    if (answer && answer.status === 401) {
      $('lost').hidden = true;
      return showRefused();
    }
    setTimeout(listen, 1500);
  };
}

/// Makes the children of `box` match `items`; `make` builds one, `update` brings it up to date.
function fill(box, items, make, update) {
  const known = new Map([...box.children].map((child) => [child.dataset.id, child]));
  items.forEach((item, place) => {
    let child = known.get(String(item.id));
    known.delete(String(item.id));
    if (!child) {
      child = make(item);
      child.dataset.id = item.id;
    }
    if (box.children[place] !== child) box.insertBefore(child, box.children[place] || null);
    update(child, item);
  });
  for (const gone of known.values()) gone.remove();
}

function element(tag, parent) {
  const made = document.createElement(tag);
  if (parent) parent.appendChild(made);
  return made;
}

function makePad(look) {
  const pad = element('button');
  pad.type = 'button';
  const picture = element('img', pad);
  picture.alt = '';
  element('span', pad);
  const press = (pointer) => {
    if (held.has(pointer)) return;
    held.set(pointer, look.id);
    tell({do: 'press', id: look.id});
  };
  const release = (pointer) => {
    if (!held.has(pointer)) return;
    const id = held.get(pointer);
    held.delete(pointer);
    tell({do: 'release', id});
  };
  pad.addEventListener('pointerdown', (event) => {
    if (event.button !== 0) return;
    pad.setPointerCapture(event.pointerId);
    press(event.pointerId);
  });
  for (const kind of ['pointerup', 'pointercancel'])
    pad.addEventListener(kind, (event) => release(event.pointerId));
  pad.addEventListener('contextmenu', (event) => event.preventDefault());
  // A keyboard or a screen reader presses without a pointer.
  pad.addEventListener('keydown', (event) => {
    if ((event.key === ' ' || event.key === 'Enter') && !event.repeat) press('key');
  });
  pad.addEventListener('keyup', (event) => {
    if (event.key === ' ' || event.key === 'Enter') release('key');
  });
  pad.addEventListener('click', (event) => {
    if (event.detail === 0 && event.pointerType === '' && !held.has('key')) {
      press('reader');
      release('reader');
    }
  });
  return pad;
}

function makeFader(zone) {
  const row = element('label');
  row.className = 'fader';
  element('span', row);
  const range = element('input', row);
  Object.assign(range, {type: 'range', min: 0, max: 100, step: 1});
  element('output', row);
  let next = null;
  let rest = null;
  const send = () => {
    next = null;
    tell(zone.id === 'master' ? {do: 'master', value: range.value / 100}
                              : {do: 'zone', id: zone.id, value: range.value / 100});
  };
  range.addEventListener('input', () => {
    row.lastChild.value = range.value;
    // What the computer says meanwhile is older than the hand.
    row.dataset.moved = '1';
    clearTimeout(rest);
    rest = setTimeout(() => delete row.dataset.moved, 700);
    if (next === null) next = setTimeout(send, 40);
  });
  return row;
}

function makeAnswer() {
  const button = element('button');
  button.type = 'button';
  element('b', button);
  element('span', button);
  button.addEventListener('click', () => {
    tell(button.dataset.begin ? {do: 'bench-begin', id: Number(button.dataset.begin)}
                              : {do: 'bench-answer', id: Number(button.dataset.seen)});
  });
  return button;
}

function makePalette(palette) {
  const button = element('button');
  button.type = 'button';
  element('i', button).style.background = `linear-gradient(to right, ${palette.stops.join(', ')})`;
  element('span', button);
  button.addEventListener('click', () => tell({do: 'palette', id: palette.id}));
  return button;
}

function showBench() {
  const bench = state.bench || {};
  $('target').textContent = bench.target || '';
  $('question').textContent = bench.question || say('What is to be found?');
  $('hint').textContent = bench.hint || '';
  $('left').textContent = bench.left || '';
  fill($('answers'), (bench.answers || []).map((answer, i) => ({...answer, id: `${bench.serial}-${i}`})), makeAnswer,
       (button, answer) => {
         const dot = button.firstChild;
         dot.hidden = !answer.colour;
         if (answer.colour) dot.style.background = answer.colour;
         button.lastChild.textContent = answer.words;
         delete button.dataset.begin;
         delete button.dataset.seen;
         if (answer.begin !== undefined) button.dataset.begin = answer.begin;
         else button.dataset.seen = answer.seen;
       });
  $('back').disabled = !bench.canGoBack;
}

function show() {
  translate(state.language || 'en');
  $('title').textContent = state.show || 'Chispa';
  $('phones').textContent = state.phones === 1 ? say('1 phone') : say('%1 phones', state.phones);
  $('now').textContent = state.now || '';
  const night = state.night || {};
  $('tonight').textContent = night.words ? say('Tonight: %1', night.words) : '';
  $('night').hidden = !night.watching;
  $('hold').setAttribute('aria-pressed', Boolean(night.held));
  $('longer').disabled = !night.plays;
  $('lit').textContent = state.light ? say('Light is ON') : say('Light is OFF');
  $('lit').setAttribute('aria-pressed', Boolean(state.light));
  $('blackout').setAttribute('aria-pressed', Boolean(state.blackout));
  fill($('pads'), state.looks || [], makePad, (pad, look) => {
    pad.lastChild.textContent = look.name;
    pad.setAttribute('aria-pressed', look.lit);
    const picture = `pad/${look.id}?${look.picture}`;
    if (pad.firstChild.getAttribute('src') !== picture) pad.firstChild.setAttribute('src', picture);
  });
  const faders = [{id: 'master', name: say('Master'), level: state.master}, ...(state.zones || [])];
  fill($('faders'), faders, makeFader, (row, zone) => {
    row.firstChild.textContent = zone.name;
    // What a finger moves is not moved under it.
    if (row.dataset.moved) return;
    const value = Math.round(zone.level * 100);
    if (Number(row.children[1].value) !== value) row.children[1].value = value;
    row.lastChild.value = value;
  });
  fill($('palettes'), state.palettes || [], makePalette, (button, palette) => {
    button.lastChild.textContent = palette.name;
  });
  showBench();
}

function openTab(name) {
  for (const page of ['looks', 'levels', 'bench']) {
    $(page).hidden = page !== name;
    $(`tab-${page}`).setAttribute('aria-selected', page === name);
  }
  tell({do: 'page', words: name});
}

for (const page of ['looks', 'levels', 'bench']) $(`tab-${page}`).addEventListener('click', () => openTab(page));
$('lit').addEventListener('click', () => tell({do: 'light', value: state.light ? 0 : 1}));
$('hold').addEventListener('click', () => tell({do: 'night-hold', value: state.night && state.night.held ? 0 : 1}));
$('longer').addEventListener('click', () => tell({do: 'night-longer', value: 30}));
$('blackout').addEventListener('click', () => tell({do: 'blackout', value: state.blackout ? 0 : 1}));
$('back').addEventListener('click', () => tell({do: 'bench-back'}));
$('locate').addEventListener('click', () => tell({do: 'bench-locate'}));
for (const button of document.querySelectorAll('[data-port]'))
  button.addEventListener('click', () => tell({do: 'bench-port', value: Number(button.dataset.port)}));
for (const button of document.querySelectorAll('[data-walk]'))
  button.addEventListener('click', () => tell({do: 'bench-walk', value: Number(button.dataset.walk)}));

// A video goes part by part: the computer keeps what has come, and says at once if it cannot.
const kPart = 1 << 20;
let sending = null;
async function sendVideo(file) {
  const own = sending = {};
  const ending = (file.name.split('.').pop() || 'mp4').toLowerCase();
  $('sent').hidden = false;
  $('stopVideo').disabled = false;
  let words = '';
  for (let at = 0; at < file.size && !words; at += kPart) {
    $('sent').value = at / file.size;
    $('videoState').textContent = say('%1 % of %2 MB sent', Math.floor(100 * at / file.size), (file.size / 1e6).toFixed(1));
    const answer = await fetch(`video?at=${at}&size=${file.size}&ending=${encodeURIComponent(ending)}`,
                               {method: 'POST', body: file.slice(at, at + kPart)}).catch(() => null);
    if (sending !== own) words = say('Stopped. Nothing was kept.');
    else if (!answer) words = say('The computer does not answer. Send it again.');
    else if (answer.status === 401) showRefused();
    else if (!answer.ok) words = say('Not taken: %1.', await answer.text());
  }
  if (!file.size) words = say('The video is empty.');
  $('videoState').textContent = words || say('The computer has it: see Positions by camera there.');
  $('sent').hidden = true;
  $('stopVideo').disabled = true;
  sending = null;
}
$('video').addEventListener('change', () => {
  const file = $('video').files[0];
  $('video').value = '';
  if (file && !sending) sendVideo(file);
});
$('stopVideo').addEventListener('click', () => { sending = null; });

// A phone that goes while a pad is held lets it go: the computer misses these.
setInterval(() => { if (held.size) tell({do: 'still'}); }, 800);

// The live picture: the next one is asked for once this one is there.
let pictures = 0;
const nextPicture = () => setTimeout(() => {
  if (document.hidden || $('looks').hidden) return nextPicture();
  $('light').src = `light?${++pictures}`;
}, 100);
$('light').addEventListener('load', nextPicture);
$('light').addEventListener('error', () => setTimeout(nextPicture, 1000));
nextPicture();
// Until the computer has said its own.
translate(navigator.language.slice(0, 2) in kWords ? navigator.language.slice(0, 2) : 'en');
pair();
