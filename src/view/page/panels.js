// Panels next to the picture: tables, one member, findings, limits, hand calculation.
import {clean, figures, inUnit, number, shortNumber} from './format.js';
import {extremes, pieceAt} from './values.js';

export function element(tag, attributes = {}, ...children) {
  const e = document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) {
    if (name === 'class') e.className = value;
    else if (name.startsWith('on')) e.addEventListener(name.slice(2), value);
    else if (value !== false && value !== null && value !== undefined) e.setAttribute(name, value === true ? '' : value);
  }
  e.append(...children.filter((c) => c !== null && c !== undefined));
  return e;
}

const words = (cell) => (Array.isArray(cell) ? cell[0] : cell);

// A table that sorts by a click on a heading, and whose names choose what they name.
export function table(data, app) {
  const names = new Set([...app.model.members.map((m) => m.name), ...app.model.points.map((p) => p.name)]);
  const body = element('tbody');
  let order = data.rows.map((_, i) => i);
  // Names that are shown once for several rows are known for each of them.
  const full = [];
  data.rows.forEach((row, i) => {
    full.push(row.cells.map((cell, c) => (words(cell) === '' && c === 0 && i > 0 ? full[i - 1][c] : words(cell))));
  });
  const fill = (sorted) => {
    body.replaceChildren();
    for (const i of order) {
      const tr = element('tr');
      const name = full[i][0];
      if (names.has(name)) tr.dataset.of = name;
      tr.classList.toggle('chosen', name === app.chosenName());
      data.rows[i].cells.forEach((cell, c) => {
        const text = sorted && c === 0 ? full[i][0] : words(cell);
        const tone = Array.isArray(cell) ? cell[1] : '';
        const td = element('td', {class: [data.columns[c][2] ? '' : 'n', tone].filter(Boolean).join(' ')});
        if (names.has(text) && data.columns[c][2]) td.append(element('button', {type: 'button', onclick: () => app.choose(text)}, text));
        else td.append(text);
        tr.append(td);
      });
      body.append(tr);
      for (const below of data.rows[i].beneath) body.append(element('tr', {class: 'beneath'}, element('td', {colspan: data.columns.length}, below)));
    }
  };
  const head = element('tr');
  data.columns.forEach(([name, unit, isWords], c) => {
    if (name === '' && unit === '') return head.append(element('td'));
    const th = element('th', {scope: 'col', class: isWords ? '' : 'n', 'aria-sort': 'none'});
    th.append(element('button', {
      type: 'button',
      onclick: () => {
        const down = th.getAttribute('aria-sort') === 'ascending';
        head.querySelectorAll('th').forEach((h) => h.setAttribute('aria-sort', 'none'));
        th.setAttribute('aria-sort', down ? 'descending' : 'ascending');
        const key = (i) => {
          const text = full[i][c] ?? '';
          const value = parseFloat(text);
          return isWords || Number.isNaN(value) ? text : value;
        };
        order = data.rows.map((_, i) => i).sort((a, b) => {
          const [x, y] = [key(a), key(b)];
          if (x === '' || y === '') return (x === '') - (y === '');
          const less = typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y), undefined, {numeric: true});
          return (down ? -less : less) || a - b;
        });
        fill(true);
      },
    }, name || '·'), unit ? element('span', {class: 'unit'}, `[${unit}]`) : '');
    head.append(th);
  });
  fill(false);
  return element('div', {},
    data.title ? element('h3', {}, data.title) : null,
    element('div', {class: 'wide', tabindex: 0, role: 'region', 'aria-label': data.title || 'table'}, element('table', {}, element('thead', {}, head), body)),
    data.after ? element('p', {class: 'quiet'}, data.after) : null);
}

export function resultsPanel(app) {
  const load = app.load();
  const tables = app.isEnvelope() ? app.model.envelope : load ? load.tables : [];
  return [element('h2', {}, app.caseName()), ...(load && !app.isEnvelope() ? load.summary.map((s) => element('p', {}, s)) : []), ...tables.map((t) => table(t, app))];
}

export function summaryPanel(app) {
  const m = app.model;
  const rows = m.summary.map(([label, text]) => element('tr', {}, element('th', {scope: 'row'}, label), element('td', {}, text)));
  return [element('h2', {}, 'Summary'),
    m.limits ? element('p', {class: m.limits.met ? 'good' : 'bad'}, m.limits.title) : element('p', {}, 'The model has no limits.'),
    m.hand ? element('p', {}, m.hand.table.title) : element('p', {}, 'The model has no hand calculation.'),
    element('table', {}, element('tbody', {}, ...rows))];
}

const svgName = 'http://www.w3.org/2000/svg';
function svg(tag, attributes, text) {
  const e = document.createElementNS(svgName, tag);
  for (const [name, value] of Object.entries(attributes)) e.setAttribute(name, value);
  if (text !== undefined) e.textContent = text;
  return e;
}

// One diagram along a member, with its extremes.
function plot(app, member, name, pieces, load) {
  const {model} = app;
  const f = figures[name];
  const u = model.units[f.unit];
  const [w, h, left, top] = [440, 92, 8, 20];
  const e = extremes(pieces);
  const most = Math.max(Math.abs(e.max.value), Math.abs(e.min.value));
  if (!(most > 1e-9 * load.sizes[f.kind])) return null;
  const high = Math.max(e.max.value, 0);
  const low = Math.min(e.min.value, 0);
  // Moments are drawn on the tension side: positive ones below.
  const flip = name.startsWith('moment') ? -1 : 1;
  const span = high - low;
  const y = (v) => top + ((flip > 0 ? high - v : v - low) / span) * (h - 2 * top);
  const x = (a) => left + (a / member.length) * (w - 2 * left);
  const points = [];
  for (const p of pieces) for (let k = 0; k <= 16; ++k) {
    const a = p[0] + ((p[1] - p[0]) * k) / 16;
    points.push(`${x(a).toFixed(2)},${y(pieceAt([p], a)).toFixed(2)}`);
  }
  const drawing = svg('svg', {viewBox: `0 0 ${w} ${h}`, role: 'img', 'aria-label': `${f.symbol} along ${member.name}: largest ${inUnit(e.max.value, u, model.digits)} at ${shortNumber(e.max.at / model.units.length[1], 6)}, least ${inUnit(e.min.value, u, model.digits)} at ${shortNumber(e.min.at / model.units.length[1], 6)} ${model.units.length[0]}`});
  drawing.append(svg('polygon', {points: `${left},${y(0)} ${points.join(' ')} ${w - left},${y(0)}`, fill: 'currentColor', 'fill-opacity': 0.14}));
  drawing.append(svg('line', {x1: left, x2: w - left, y1: y(0), y2: y(0), stroke: 'currentColor', 'stroke-width': 1}));
  drawing.append(svg('polyline', {points: points.join(' '), fill: 'none', stroke: 'currentColor', 'stroke-width': 1.5}));
  for (const m of member.through) drawing.append(svg('line', {x1: x(m[1]), x2: x(m[1]), y1: y(0) - 4, y2: y(0) + 4, stroke: 'currentColor'}));
  const told = e.max.value === e.min.value ? [e.max] : [e.max, e.min];
  for (const {value, at} of told) {
    if (Math.abs(value) <= 1e-9 * most) continue;
    const end = x(at) > w * 0.66 ? 'end' : x(at) < w * 0.33 ? 'start' : 'middle';
    const above = y(value) <= y(0);
    drawing.append(svg('circle', {cx: x(at), cy: y(value), r: 2.6, fill: 'currentColor'}));
    drawing.append(svg('text', {x: x(at), y: above ? y(value) - 6 : y(value) + 14, 'text-anchor': end}, `${number(value / u[1], model.digits)} at ${shortNumber(at / model.units.length[1], 5)}`));
  }
  return element('figure', {style: 'margin:.2rem 0'}, element('figcaption', {class: 'quiet'}, `${f.symbol} [${u[0]}]`), drawing);
}

export function memberPanel(app) {
  const {model} = app;
  const name = app.chosenName();
  const i = model.members.findIndex((m) => m.name === name);
  const load = app.load();
  if (i < 0) {
    const p = model.points.findIndex((q) => q.name === name);
    if (p < 0 || !load) return [element('h2', {}, 'Member'), element('p', {}, 'Point at a member, or press M, to show it here.')];
    const d = load.points[p];
    const rows = ['x', 'y', 'z', 'about x', 'about y', 'about z'].map((what, k) => {
      const u = k < 3 ? model.units.deflection : model.units.angle;
      return element('tr', {}, element('th', {scope: 'row'}, what), element('td', {class: 'n'}, inUnit(clean(d[k], k < 3 ? load.sizes.movement : load.sizes.rotation), u, model.digits)));
    });
    return [element('h2', {}, `Point ${name}`), element('p', {class: 'quiet'}, `at ${model.points[p].at.map((v) => shortNumber(v / model.units.length[1], 7)).join(', ')} ${model.units.length[0]}; displacements in ${app.caseName()}`), element('table', {}, element('tbody', {}, ...rows))];
  }
  const m = model.members[i];
  const section = model.sections[m.section];
  const facts = [`${m.kind}, ${shortNumber(m.length / model.units.length[1], 6)} ${model.units.length[0]}, through ${m.through.map(([p]) => model.points[p].name).join(', ')}`,
    `${section.name}${section.profile && section.profile !== section.name ? ` (${section.profile})` : ''}, ${m.material}${m.strength ? `, strength ${inUnit(m.strength, model.units.stress, model.digits)}` : ''}`];
  if (model.lines[m.name]) facts.push(`line ${model.lines[m.name]} of ${model.file.replace(/.*\//, '')}`);
  const out = [element('h2', {}, m.name), ...facts.map((f) => element('p', {}, f))];
  if (app.isEnvelope() || !load) return [...out, element('p', {}, 'Select one case to see its diagrams.')];
  const result = load.members[i];
  const verdict = [result.slack ? 'slack in this case' : null, result.safety ? `safety factor ${number(result.safety, 3)}` : null,
    `deflection ${inUnit(clean(result.sag[0], load.sizes.movement), model.units.deflection, model.digits)}`].filter(Boolean);
  out.push(element('p', {}, `${app.caseName()}: ${verdict.join(', ')}`));
  for (const f of result.figures) if (result.pieces[f]) {
    const drawn = plot(app, m, f, result.pieces[f], load);
    if (drawn) out.push(drawn);
  }
  return out;
}

export function findingsPanel(app) {
  const all = app.model.findings;
  const out = [element('h2', {}, 'Findings')];
  if (all.length === 0) out.push(element('p', {class: 'good'}, 'No findings.'));
  for (const f of all)
    out.push(element('div', {class: `finding ${f.severity}`},
      element('p', {}, element('strong', {}, f.severity), f.line ? ` line ${f.line}` : '', f.finding ? ` (${f.finding})` : ''),
      element('p', {}, f.text),
      f.because ? element('p', {class: 'quiet'}, `accepted: ${f.because}`) : f.remedy ? element('p', {class: 'quiet'}, `remedy: ${f.remedy}`) : null,
      element('p', {}, ...f.on.map((name) => element('button', {type: 'button', onclick: () => app.choose(name)}, name)))));
  return out;
}

export function limitsPanel(app) {
  return [element('h2', {}, 'Limits'), app.model.limits ? table(app.model.limits, app) : element('p', {}, 'The model has no limits.')];
}

export function handPanel(app) {
  const {hand} = app.model;
  if (!hand) return [element('h2', {}, 'Hand calculation'), element('p', {}, 'The model has no hand calculation: write it under hand: in the file.')];
  const parser = new DOMParser();
  return [element('h2', {}, 'Hand calculation'), table(hand.table, app),
    ...hand.formulas.map((f) => {
      const math = parser.parseFromString(`<math xmlns="http://www.w3.org/1998/Math/MathML" display="block">${f.math}</math>`, 'application/xml').documentElement;
      return element('div', {class: 'worked', tabindex: 0, role: 'group', 'aria-label': f.what || 'formula'}, f.what ? element('p', {class: f.agrees ? '' : 'bad'}, f.what) : null, document.importNode(math, true));
    })];
}
