// The page: what is shown, and what pointer and keys do.
import {Camera} from './camera.js';
import {Drawing} from './drawing.js';
import {Solids} from './solids.js';
import {largest, modeMovements, movements, restShape, samples} from './shape.js';
import {clean, figures, inUnit, number, shortNumber} from './format.js';
import {entriesAt, nearestPlace} from './values.js';
import {element, findingsPanel, handPanel, limitsPanel, memberPanel, resultsPanel, summaryPanel} from './panels.js';

const $ = (id) => document.getElementById(id);
const embedded = $('data').textContent.trim();
const served = embedded === '';

// What the server answers. It is asked again a few times where it is busy: only a server that stays away has ended.
async function ask(path, query) {
  const given = Object.entries(query).filter(([, value]) => value !== null);
  const address = `${path}?${given.map(([key, value]) => `${key}=${encodeURIComponent(value)}`).join('&')}`;
  for (let tries = 1; ; ++tries) {
    try {
      const answer = await fetch(address);
      if (!answer.ok) throw new Error(answer.statusText);
      return await answer.json();
    } catch (error) {
      if (tries === 4) throw error;
      await new Promise((resolve) => setTimeout(resolve, 250 * tries));
    }
  }
}

const panels = {summary: ['Summary', summaryPanel], results: ['Results', resultsPanel], member: ['Member', memberPanel], findings: ['Findings', findingsPanel], limits: ['Limits', limitsPanel], hand: ['Hand calculation', handPanel]};

class App {
  constructor() {
    this.camera = new Camera();
    this.drawing = new Drawing($('plot'));
    this.loads = new Map();
    this.index = 0; // of the case, or 'envelope'
    this.panel = 'summary';
    this.chosen = null; // the name of a member or point
    this.place = null; // {member, at}: where values are told
    this.scaleOf = 'auto';
    this.moving = false;
    this.phase = 1;
    this.dark = matchMedia('(prefers-color-scheme: dark)').matches;
    this.variant = served ? null : ''; // null: the one that the server begins with
    this.version = 0;
    this.frame = 0;
  }

  // -- what is known -------------------------------------------------------------------------------------------------
  load() {
    return this.loads.get(this.isEnvelope() ? this.model.governing : this.index) ?? null;
  }
  isEnvelope() {
    return this.index === 'envelope';
  }
  judged() {
    return this.model.cases.map((c, i) => [c, i]).filter(([c]) => c.judged).map(([, i]) => i);
  }
  caseName() {
    return this.isEnvelope() ? `envelope of ${this.judged().length}` : this.model.cases[this.index].name;
  }
  // The shape of vibration or buckling that is shown, if it is one.
  mode() {
    const [, index] = /^mode-(\d+)$/.exec($('what').value) ?? [];
    return index === undefined || this.isEnvelope() ? null : this.load()?.modes?.[index] ?? null;
  }
  chosenName() {
    return this.chosen;
  }

  take(model, keepView) {
    const before = this.model;
    this.model = model;
    this.rest = restShape(model);
    this.moved = null;
    this.movedBy = null;
    this.solidsOf = null;
    const name = before && !this.isEnvelope() && before.cases[this.index] ? before.cases[this.index].name : null;
    const same = model.cases.findIndex((c) => c.name === name);
    if (!(this.isEnvelope() && this.judged().length > 1)) this.index = same >= 0 ? same : model.governing;
    if (this.place && !model.members[this.place.member]) this.place = null;
    if (this.chosen && ![...model.members, ...model.points].some((o) => o.name === this.chosen)) this.chosen = null;
    if (!keepView) {
      this.camera.view(model.plane ? 'front' : 'space', model.up);
      this.measure();
      this.fit();
    }
    this.fillControls();
  }

  fillControls() {
    const m = this.model;
    document.title = m.title;
    $('title').textContent = m.title;
    const choose = $('case');
    choose.replaceChildren();
    m.cases.forEach((c, i) => choose.append(element('option', {value: String(i)}, c.judged ? c.name : `${c.name} (load case)`)));
    if (this.judged().length > 1) choose.append(element('option', {value: 'envelope'}, `envelope of ${this.judged().length}`));
    choose.value = String(this.index);
    const variants = $('variant');
    variants.replaceChildren(element('option', {value: ''}, m.first ?? 'as it stands'), ...m.variants.map((v) => element('option', {value: v}, v)));
    variants.value = this.variant;
    $('variant-label').hidden = m.variants.length === 0;
    $('variant-label').firstChild.textContent = m.first ? 'Model ' : 'Variant ';
  }

  // Shapes of modes are those of the case that is shown.
  fillModes() {
    const group = $('modes');
    const chosen = $('what').value;
    const modes = this.isEnvelope() ? [] : this.load()?.modes ?? [];
    group.hidden = modes.length === 0;
    group.replaceChildren(...modes.map((m, i) => element('option', {value: `mode-${i}`}, m.name)));
    $('what').value = chosen.startsWith('mode-') && !modes[chosen.slice(5)] ? 'deformed' : chosen;
  }

  // -- getting results -----------------------------------------------------------------------------------------------
  async need(index) {
    const wanted = index === 'envelope' ? this.judged() : [index];
    for (const i of wanted) {
      if (this.loads.has(i)) continue;
      if (!served) continue;
      const {loads} = this;
      const answer = await ask('case', {variant: this.variant, index: i});
      if (answer.case && loads === this.loads) loads.set(i, answer.case);
    }
    this.needStress(wanted);
  }

  // Takes longer than what is drawn, and comes after it.
  async needStress(wanted) {
    const {loads, variant} = this;
    for (const i of wanted) {
      const load = loads.get(i);
      if (!served || !load || load.stress || load.asked) continue;
      load.asked = true;
      const answer = await ask('stress', {variant, index: i});
      if (!answer.stress || loads !== this.loads) return;
      load.stress = answer.stress;
      if (this.place) this.showPlace();
      this.draw();
    }
  }

  async fetchModel(keepView) {
    const name = this.model && !this.isEnvelope() ? this.model.cases[this.index].name : '';
    const {variant} = this;
    const answer = await ask('model', {variant, case: name});
    // Another variant was chosen meanwhile: its answer is still to come.
    if (variant !== this.variant) return;
    this.version = answer.version;
    this.showProblems([...answer.problems, ...(answer.refused ?? [])]);
    if (!answer.model) return;
    this.loads = new Map([[answer.case.index, answer.case]]);
    this.variant ??= answer.model.variant;
    this.take(answer.model, keepView);
    if (!this.loads.has(this.index) || this.isEnvelope()) await this.need(this.index);
    this.refresh();
    this.needStress(this.isEnvelope() ? this.judged() : [this.index]);
  }

  async follow() {
    for (;;) {
      try {
        const news = await ask('news', {version: this.version});
        if (news.version !== this.version) await this.fetchModel(Boolean(this.model));
      } catch {
        this.showProblems([{severity: 'error', text: 'The program has ended: start it again and load this page anew.', line: 0, remedy: ''}]);
        return;
      }
    }
  }

  showProblems(problems) {
    const box = $('problems');
    box.hidden = problems.length === 0;
    box.replaceChildren(...problems.map((p) => element('div', {}, `${p.line ? `line ${p.line}: ` : ''}${p.severity}: ${p.text}${p.remedy ? ` (${p.remedy})` : ''}`)));
    if (problems.length && this.model) box.append(element('div', {}, 'The last model that could be solved is shown.'));
  }

  // -- drawing -------------------------------------------------------------------------------------------------------
  measure() {
    const box = $('stage').getBoundingClientRect();
    this.camera.width = Math.max(box.width, 50);
    this.camera.height = Math.max(box.height, 50);
  }

  fit() {
    const points = [];
    for (const m of this.model.members) points.push(m.a, m.b);
    for (const p of this.model.points) points.push(p.at);
    this.reach = 0;
    for (const p of points) for (const q of points.slice(0, 1)) this.reach = Math.max(this.reach, Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]));
    this.camera.fit(points);
    this.draw();
  }

  // Displacements so many times as large that the largest is a fifteenth of the structure.
  automatic() {
    if (!this.mostMoved) return 1;
    // A mode has no size of its own.
    if (this.mode()) return (this.reach || 1) / 10;
    const wanted = (this.reach || 1) / 15 / this.mostMoved;
    const power = 10 ** Math.floor(Math.log10(wanted));
    const lead = wanted / power;
    return Math.max(1, (lead >= 5 ? 5 : lead >= 2 ? 2 : 1) * power);
  }
  scale() {
    if (this.mode()) return this.automatic();
    return this.scaleOf === 'auto' ? this.automatic() : this.scaleOf;
  }

  ready() {
    const load = this.load();
    const mode = this.mode();
    if ((mode ?? load) !== this.movedBy) {
      this.movedBy = mode ?? load;
      this.moved = mode ? modeMovements(this.model, mode) : load ? movements(this.model, load) : null;
      this.mostMoved = this.moved ? largest(this.moved) : 0;
    }
    return load;
  }

  draw() {
    if (this.frame) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      this.paint();
    });
  }

  paint() {
    if (!this.model) return;
    const started = performance.now();
    const {camera, drawing, model} = this;
    const ratio = Math.min(window.devicePixelRatio || 1, 2);
    const load = this.ready();
    const what = $('what').value;
    const mode = this.mode();
    const solid = !mode && $('solid').checked && this.hasSolids(load);
    const moves = (mode || what === 'deformed' || what === 'stress' || solid) && load && !this.isEnvelope() && what !== 'none';
    const scale = moves ? this.scale() * this.phase : 0;
    drawing.begin(camera, ratio, this.dark);
    const rest = drawing.courses(this.rest, null, 0);
    this.spots = scale ? drawing.courses(this.rest, this.moved, scale) : rest;
    const {colours} = drawing;
    if (solid) this.solids.draw(camera, this.reach || 1, scale, what === 'stress', ratio);
    $('solids').style.visibility = solid ? 'visible' : 'hidden';
    let legend = [];
    const many = model.members.length > 400;
    // Of very many members the shape alone is drawn while it moves or is turned.
    const hurried = many && (this.moving || this.turning);
    if (solid && scale) drawing.members(model, rest, colours.rest, 1, many ? [] : [4, 4], true);
    if (!solid) {
      if (scale && !hurried) drawing.members(model, rest, colours.rest, many ? 0.7 : 1.2, many ? [] : [4, 4], true);
      drawing.members(model, this.spots, colours.member, hurried ? 1 : many ? 1.4 : 2.6, [], !scale, hurried);
    }
    drawing.arms(model);
    if (load && !solid && !this.isEnvelope()) drawing.slack(model, load, this.spots);
    if (what === 'stress' && !solid && load?.stress && !this.isEnvelope()) drawing.stress(model, load, this.spots);
    if (!hurried) drawing.supports(model);
    if (['axial', 'shear', 'moment', 'torsion'].includes(what) && load) {
      const all = this.judged().map((i) => this.loads.get(i)).filter(Boolean);
      const shown = this.isEnvelope() ? drawing.envelope(model, all, what) : drawing.diagrams(model, load, what);
      legend.push(shown ? `largest ${inUnit(shown.most, shown.unit, model.digits)}; ${this.isEnvelope() ? 'largest of all cases blue, least orange and dashed' : 'positive blue, negative orange'}${what === 'moment' ? ', on the side that is pulled' : ''}` : 'there is none in this case');
    }
    if (what === 'stress') {
      if (solid) drawing.stressScale(model, this.solids.most);
      else {
        if (load?.stress) {
          drawing.stressScale(model, load.stress.size);
          legend.push('the larger of tension and compression in each section');
        }
        const faces = $('solid').checked || this.noWebGL ? 'stress by face needs WebGL, which this browser does not have' : 'solid profiles show the stress of each face';
        legend.push(faces);
      }
    }
    if (mode) legend.push(`${mode.name}; a shape has no size of its own`);
    else if (moves) legend.push(`displacements ${this.scale() === 1 ? 'at true scale' : `× ${shortNumber(this.scale(), 4)}`}`);
    if ($('loads').checked && load && !mode && !this.isEnvelope() && !hurried) {
      const words = drawing.loads(model, load);
      if (words.length) legend.push(`also acting: ${words.slice(0, 4).join(', ')}${words.length > 4 ? ' …' : ''}`);
    }
    if ($('reactions').checked && load && !this.isEnvelope()) drawing.reactions(model, load);
    const chosen = model.members.findIndex((m) => m.name === this.chosen);
    if (chosen >= 0) drawing.member(model, this.spots, chosen, colours.chosen, 4);
    const point = model.points.find((p) => p.name === this.chosen);
    if (point) drawing.mark(camera.project(point.at));
    if ($('names').checked && !hurried) drawing.names(model, this.spots, this.chosen);
    drawing.axes();
    if (this.place) drawing.mark(this.spotAt(this.place));
    $('summary').textContent = legend.join('; ');
    $('scale-value').textContent = mode ? '' : `× ${shortNumber(this.scale(), 4)}`;
    for (const id of ['scale', 'true-scale']) $(id).disabled = Boolean(mode);
    this.paintTime = performance.now() - started;
    if (this.moving && !this.frame) this.draw();
    if (this.moving) this.phase = Math.sin((performance.now() / 1000) * Math.PI);
  }

  hasSolids(load) {
    if (this.noWebGL) return false;
    try {
      this.solids ??= new Solids($('solids'));
      if (this.solidsOf !== load || !this.solids.mesh) this.solids.build(this.model, this.isEnvelope() ? null : load);
      this.solidsOf = load;
      return true;
    } catch {
      this.noWebGL = true;
      return false;
    }
  }

  spotAt({member, at}) {
    const m = this.model.members[member];
    const t = (at / m.length) * (samples - 1);
    const k = Math.min(Math.floor(t), samples - 2);
    const i = (member * samples + k) * 2;
    const f = t - k;
    return [0, 1].map((c) => this.spots[i + c] * (1 - f) + this.spots[i + 2 + c] * f);
  }

  // -- the value at the pointer ---------------------------------------------------------------------------------------
  placesOf(member) {
    const load = this.load();
    if (!load) return [];
    if (!this.isEnvelope()) return load.members[member].places;
    // Those that every case has.
    const others = this.judged().map((i) => this.loads.get(i)).filter((l) => l && l !== load);
    return load.members[member].places.filter((p) => others.every((l) => entriesAt(l.members[member].places, p[0]).length > 0));
  }

  pick(x, y) {
    let best = 14;
    let found = null;
    const n = this.model.members.length;
    for (let i = 0; i < n; ++i) {
      for (let k = 0; k + 1 < samples; ++k) {
        const a = (i * samples + k) * 2;
        const [ax, ay, bx, by] = [this.spots[a], this.spots[a + 1], this.spots[a + 2], this.spots[a + 3]];
        const [dx, dy] = [bx - ax, by - ay];
        const l = dx * dx + dy * dy;
        const t = l > 0 ? Math.min(Math.max(((x - ax) * dx + (y - ay) * dy) / l, 0), 1) : 0;
        const distance = Math.hypot(ax + t * dx - x, ay + t * dy - y);
        if (distance < best) {
          best = distance;
          found = {member: i, at: (this.model.members[i].length * (k + t)) / (samples - 1)};
        }
      }
    }
    if (!found) return null;
    const places = this.placesOf(found.member);
    if (places.length) found.at = nearestPlace(places, found.at);
    return found;
  }

  // Tension, compression, shear and von Mises stress of each side of a place.
  stressAt(load, member, at) {
    const {places} = load.members[member];
    return load.stress.members[member].filter((_, i) => Math.abs(places[i][0] - at) <= 1e-9 * Math.max(1, Math.abs(at)));
  }

  // [name, words for each side]: the lines of the readout.
  valuesAt({member, at}) {
    const {model} = this;
    const rows = [];
    const stress = model.units.stress;
    if (this.isEnvelope()) {
      const loads = this.judged().map((i) => [model.cases[i].name, this.loads.get(i)]).filter(([, l]) => l);
      const first = loads[0][1].members[member];
      const size = (kind) => Math.max(...loads.map(([, l]) => (kind === 'stress' ? l.stress.size : l.sizes[kind])));
      const range = (symbol, u, kind, value) => {
        const all = loads.map(([name, l]) => [clean(value(l), size(kind)), name]).filter(([v]) => v !== null);
        if (!all.length) return;
        const max = all.reduce((a, b) => (b[0] > a[0] ? b : a));
        const min = all.reduce((a, b) => (b[0] < a[0] ? b : a));
        rows.push([`${symbol} max`, [`${inUnit(max[0], u, model.digits)} (${max[1]})`]], [`${symbol} min`, [`${inUnit(min[0], u, model.digits)} (${min[1]})`]]);
      };
      first.figures.forEach((f, k) => range(figures[f].symbol, model.units[figures[f].unit], figures[f].kind, (l) => entriesAt(l.members[member].places, at).at(-1)[2][k]));
      if (loads.every(([, l]) => l.stress)) range('von Mises', stress, 'stress', (l) => this.stressAt(l, member, at).at(-1)[3]);
      else rows.push(['stress', ['is being worked out']]);
      return rows;
    }
    const load = this.load();
    const result = load.members[member];
    const sides = entriesAt(result.places, at);
    const tell = (symbol, u, kind, value) => {
      const words = sides.map((p, side) => {
        const v = value(p, side);
        return v === null ? '–' : number(clean(v, kind === 'stress' ? load.stress.size : load.sizes[kind]) / u[1], model.digits);
      });
      const told = words.every((w) => w === words[0]) ? [words[0]] : words;
      told[told.length - 1] += ` ${u[0]}`;
      rows.push([symbol, told]);
    };
    result.figures.forEach((f, k) => tell(figures[f].symbol, model.units[figures[f].unit], figures[f].kind, (p) => p[2][k]));
    if (!load.stress) return [...rows, ['stress', ['is being worked out']]];
    const stresses = this.stressAt(load, member, at);
    ['tension', 'compression', 'shear', 'von Mises'].forEach((symbol, k) => tell(symbol, stress, 'stress', (_, side) => stresses[side][k]));
    return rows;
  }

  showPlace(x, y) {
    const box = $('readout');
    if (!this.place || !this.load()) return box.replaceChildren();
    const m = this.model.members[this.place.member];
    const at = m.through.find(([, a]) => Math.abs(a - this.place.at) <= 1e-9 * m.length);
    const where = `${shortNumber(this.place.at / this.model.units.length[1], 6)} ${this.model.units.length[0]}${at ? ` (${this.model.points[at[0]].name})` : ''}`;
    const rows = this.valuesAt(this.place).map(([name, words]) => element('tr', {}, element('th', {scope: 'row'}, name), ...words.map((w) => element('td', {}, w))));
    box.replaceChildren(element('strong', {}, `${m.name} at ${where}`), element('table', {}, element('tbody', {}, ...rows)));
    // Beside the place, and within the picture.
    const spot = x === undefined ? this.spotAt(this.place) : [x, y];
    const [w, h] = [box.offsetWidth, box.offsetHeight];
    box.style.left = `${spot[0] + 24 + w > this.camera.width ? Math.max(spot[0] - w - 24, 4) : spot[0] + 24}px`;
    box.style.top = `${Math.min(Math.max(spot[1] - h / 2, 4), Math.max(this.camera.height - h - 4, 4))}px`;
  }

  choose(name) {
    this.chosen = name;
    const member = this.model.members.findIndex((m) => m.name === name);
    this.panel = 'member';
    if (member >= 0 && (!this.place || this.place.member !== member)) {
      this.place = null;
      $('readout').replaceChildren();
    }
    this.showPanel();
    this.draw();
  }

  stepMember(by) {
    const n = this.model.members.length;
    const from = this.place ? this.place.member : by > 0 ? -1 : 0;
    const member = (((from + by) % n) + n) % n;
    const places = this.placesOf(member);
    this.place = {member, at: places.length ? nearestPlace(places, this.model.members[member].length / 2) : 0};
    this.paint();
    this.showPlace();
  }

  stepPlace(by) {
    if (!this.place) return this.stepMember(1);
    const all = [...new Set(this.placesOf(this.place.member).map((p) => p[0]))];
    const i = all.findIndex((a) => Math.abs(a - this.place.at) <= 1e-9 * Math.max(1, a));
    this.place = {...this.place, at: all[Math.min(Math.max(i + by, 0), all.length - 1)]};
    this.paint();
    this.showPlace();
  }

  // -- beside the picture ----------------------------------------------------------------------------------------------
  showPanel() {
    const tabs = $('tabs');
    tabs.replaceChildren(...Object.entries(panels).map(([name, [title]]) => element('button', {
      type: 'button', role: 'tab', id: `tab-${name}`, 'aria-selected': name === this.panel ? 'true' : 'false', 'aria-controls': 'panel', tabindex: name === this.panel ? 0 : -1,
      onclick: () => {
        this.panel = name;
        this.showPanel();
      },
    }, title)));
    $('panel').setAttribute('aria-labelledby', `tab-${this.panel}`);
    $('panel').replaceChildren(...panels[this.panel][1](this));
  }

  refresh() {
    this.fillModes();
    $('case').value = String(this.index);
    this.showPanel();
    this.draw();
    if (this.place) {
      this.paint();
      this.showPlace();
    }
  }

  async setCase(value) {
    const index = value === 'envelope' ? value : Number(value);
    await this.need(index);
    this.index = index;
    if (this.place) {
      const places = this.placesOf(this.place.member);
      if (places.length) this.place.at = nearestPlace(places, this.place.at);
    }
    this.refresh();
  }

  async setVariant(name) {
    this.variant = name;
    if (served) return this.fetchModel(true);
    const set = JSON.parse(embedded).find((s) => s.model.variant === name);
    this.loads = new Map(Object.entries(set.cases).map(([i, c]) => [Number(i), c]));
    this.take(set.model, !set.model.first);
    this.refresh();
  }

  setDark(dark) {
    this.dark = dark;
    document.documentElement.classList.toggle('dark', dark);
    $('dark').setAttribute('aria-pressed', String(dark));
    this.draw();
  }

  toggleMotion() {
    this.moving = !this.moving;
    this.phase = 1;
    $('motion').setAttribute('aria-pressed', String(this.moving));
    this.draw();
  }
}

const app = new App();
window.corvexPage = app; // for tests of the page

function wire() {
  const plot = $('plot');
  $('case').addEventListener('change', (e) => app.setCase(e.target.value));
  $('variant').addEventListener('change', (e) => app.setVariant(e.target.value));
  for (const id of ['what', 'solid', 'loads', 'reactions', 'names']) $(id).addEventListener('change', () => app.draw());
  // From true scale at the left over the automatic one in the middle to a hundred times that.
  $('scale').addEventListener('input', (e) => {
    const share = Number(e.target.value) / 50 - 1;
    const auto = app.automatic();
    app.scaleOf = share === 0 ? 'auto' : share < 0 ? auto ** (1 + share) : auto * 100 ** share;
    $('true-scale').setAttribute('aria-pressed', String(app.scale() === 1));
    app.draw();
  });
  $('true-scale').addEventListener('click', () => {
    app.scaleOf = app.scaleOf === 1 ? 'auto' : 1;
    $('scale').value = app.scaleOf === 1 ? 0 : 50;
    $('true-scale').setAttribute('aria-pressed', String(app.scaleOf === 1));
    app.draw();
  });
  $('motion').addEventListener('click', () => app.toggleMotion());
  $('dark').addEventListener('click', () => app.setDark(!app.dark));
  $('keys-button').addEventListener('click', () => $('keys').showModal());
  $('fit').addEventListener('click', () => app.fit());
  for (const b of document.querySelectorAll('[data-view]')) b.addEventListener('click', () => { app.camera.view(b.dataset.view, app.model.up); app.fit(); });
  $('tabs').addEventListener('keydown', (e) => {
    const names = Object.keys(panels);
    const i = names.indexOf(app.panel);
    const to = e.key === 'ArrowRight' ? i + 1 : e.key === 'ArrowLeft' ? i - 1 : -1;
    if (to < 0 || to >= names.length) return;
    app.panel = names[to];
    app.showPanel();
    $(`tab-${app.panel}`).focus();
  });

  let drag = null;
  plot.addEventListener('pointerdown', (e) => {
    drag = {x: e.offsetX, y: e.offsetY, moves: e.shiftKey || e.button === 2, far: false};
    plot.setPointerCapture(e.pointerId);
  });
  plot.addEventListener('pointermove', (e) => {
    if (!app.model) return;
    if (drag) {
      const [dx, dy] = [e.offsetX - drag.x, e.offsetY - drag.y];
      if (!drag.far && Math.hypot(dx, dy) < 4) return;
      drag.far = true;
      app.turning = true;
      if (drag.moves) app.camera.move(dx, dy);
      else app.camera.turn(dx * 0.008, dy * 0.008, app.model.up);
      [drag.x, drag.y] = [e.offsetX, e.offsetY];
      return app.draw();
    }
    app.place = app.spots ? app.pick(e.offsetX, e.offsetY) : null;
    app.showPlace(e.offsetX, e.offsetY);
    app.draw();
  });
  plot.addEventListener('pointerup', (e) => {
    const clicked = drag && !drag.far;
    drag = null;
    app.turning = false;
    app.draw();
    if (!clicked || !app.model) return;
    const found = app.pick(e.offsetX, e.offsetY);
    if (found) app.choose(app.model.members[found.member].name);
  });
  plot.addEventListener('contextmenu', (e) => e.preventDefault());
  plot.addEventListener('wheel', (e) => {
    e.preventDefault();
    app.camera.zoomAt(Math.exp(-e.deltaY * 0.0015), e.offsetX, e.offsetY);
    app.draw();
  }, {passive: false});
  plot.addEventListener('keydown', (e) => {
    const step = 0.09;
    const {camera} = app;
    const [w, h] = [camera.width / 2, camera.height / 2];
    const up = app.model.up;
    const keys = {
      ArrowLeft: () => (e.shiftKey ? camera.move(-30, 0) : camera.turn(-step, 0, up)),
      ArrowRight: () => (e.shiftKey ? camera.move(30, 0) : camera.turn(step, 0, up)),
      ArrowUp: () => (e.shiftKey ? camera.move(0, -30) : camera.turn(0, -step, up)),
      ArrowDown: () => (e.shiftKey ? camera.move(0, 30) : camera.turn(0, step, up)),
      '+': () => camera.zoomAt(1.25, w, h),
      '-': () => camera.zoomAt(0.8, w, h),
      f: () => app.fit(),
      1: () => { camera.view('front', up); app.fit(); },
      2: () => { camera.view('side', up); app.fit(); },
      3: () => { camera.view('top', up); app.fit(); },
      4: () => { camera.view('space', up); app.fit(); },
      m: () => app.stepMember(1),
      M: () => app.stepMember(-1),
      '.': () => app.stepPlace(1),
      ',': () => app.stepPlace(-1),
      ' ': () => app.toggleMotion(),
      Enter: () => app.place && app.choose(app.model.members[app.place.member].name),
      Escape: () => {
        app.place = null;
        app.chosen = null;
        app.showPlace();
        app.showPanel();
      },
    };
    const act = keys[e.key];
    if (!act || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    act();
    app.draw();
  });
  new ResizeObserver(() => {
    app.measure();
    app.draw();
  }).observe($('stage'));
}

wire();
app.setDark(app.dark);
if (served) {
  app.fetchModel(false).then(() => app.follow());
} else {
  const sets = JSON.parse(embedded);
  app.loads = new Map(Object.entries(sets[0].cases).map(([i, c]) => [Number(i), c]));
  app.take(sets[0].model, false);
  app.refresh();
}
