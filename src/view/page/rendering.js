// Draws one state: which layers, how far displaced, and the words beneath the picture.
import {Camera} from './camera.js';
import {Drawing} from './drawing.js';
import {inUnit, shortNumber} from './format.js';
import {largest, modeMovements, movements, restShape, samples} from './shape.js';
import {Solids} from './solids.js';
import {nearestPlace} from './values.js';

const $ = (id) => document.getElementById(id);

export class Rendering {
  constructor(state) {
    this.state = state;
    this.camera = new Camera();
    this.drawing = new Drawing($('plot'));
    this.scaleOf = 'auto';
    this.moving = false;
    this.turning = false;
    this.phase = 1;
    this.dark = matchMedia('(prefers-color-scheme: dark)').matches;
    this.frame = 0;
  }

  // The state has another model.
  take() {
    this.rest = restShape(this.state.model);
    this.moved = null;
    this.movedBy = null;
    this.solidsOf = null;
  }

  what() {
    return $('what').value;
  }
  mode() {
    return this.state.modeOf(this.what());
  }

  measure() {
    const box = $('stage').getBoundingClientRect();
    this.camera.width = Math.max(box.width, 50);
    this.camera.height = Math.max(box.height, 50);
  }

  fit() {
    const {model} = this.state;
    const points = [];
    for (const m of model.members) points.push(m.a, m.b);
    for (const p of model.points) points.push(p.at);
    this.reach = 0;
    for (const p of points) for (const q of points.slice(0, 1)) this.reach = Math.max(this.reach, Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]));
    this.camera.fit(points);
    this.draw();
  }

  // Displacements magnified so that the largest is a fifteenth of the structure.
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
    const {state} = this;
    const load = state.load();
    const mode = this.mode();
    if ((mode ?? load) !== this.movedBy) {
      this.movedBy = mode ?? load;
      this.moved = mode ? modeMovements(state.model, mode) : load ? movements(state.model, load) : null;
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
    const {state, camera, drawing} = this;
    const {model} = state;
    if (!model) return;
    const started = performance.now();
    const load = this.ready();
    const mode = this.mode();
    const what = this.what();
    const solid = !mode && $('solid').checked && this.hasSolids(load);
    const moves = (mode || what === 'deformed' || what === 'stress' || solid) && load && !state.isEnvelope() && what !== 'none';
    const scale = moves ? this.scale() * this.phase : 0;
    const ratio = Math.min(window.devicePixelRatio || 1, 2);
    drawing.begin(camera, ratio, this.dark);
    if (solid) this.solids.draw(camera, this.reach || 1, scale, what === 'stress', ratio);
    $('solids').style.visibility = solid ? 'visible' : 'hidden';
    // Of very many members the shape alone is drawn while it moves or is turned.
    const hurried = model.members.length > 400 && (this.moving || this.turning);
    this.structure(load, {solid, scale, hurried});
    const legend = [
      ...this.results(load, solid),
      ...(mode ? [`${mode.name}; the amplitude is arbitrary`] : moves ? [`displacements ${this.scale() === 1 ? 'at true scale' : `× ${shortNumber(this.scale(), 4)}`}`] : []),
      ...this.actions(load, mode, hurried),
    ];
    this.marks(hurried);
    $('summary').textContent = legend.join('; ');
    $('scale-value').textContent = mode ? '' : `× ${shortNumber(this.scale(), 4)}`;
    for (const id of ['scale', 'true-scale']) $(id).disabled = Boolean(mode);
    this.paintTime = performance.now() - started;
    if (this.moving && !this.frame) this.draw();
    if (this.moving) this.phase = Math.sin((performance.now() / 1000) * Math.PI);
  }

  // Members at rest and displaced, arms and supports.
  structure(load, {solid, scale, hurried}) {
    const {state, drawing} = this;
    const {model} = state;
    const {colours} = drawing;
    const many = model.members.length > 400;
    const rest = drawing.courses(this.rest, null, 0);
    this.spots = scale ? drawing.courses(this.rest, this.moved, scale) : rest;
    if (solid && scale) drawing.members(model, rest, colours.rest, 1, many ? [] : [4, 4], true);
    if (!solid) {
      if (scale && !hurried) drawing.members(model, rest, colours.rest, many ? 0.7 : 1.2, many ? [] : [4, 4], true);
      drawing.members(model, this.spots, colours.member, hurried ? 1 : many ? 1.4 : 2.6, [], !scale, hurried);
    }
    drawing.arms(model);
    const alone = load && !solid && !state.isEnvelope();
    if (alone) drawing.slack(model, load, this.spots);
    if (alone && this.what() === 'stress' && load.stress) drawing.stress(model, load, this.spots);
    if (!hurried) drawing.supports(model);
  }

  // Diagrams or stresses, and what they are in words.
  results(load, solid) {
    const {state, drawing} = this;
    const {model} = state;
    const what = this.what();
    if (['axial', 'shear', 'moment', 'torsion'].includes(what) && load) {
      const all = state.assessed().map((i) => state.loads.get(i)).filter(Boolean);
      const shown = state.isEnvelope() ? drawing.envelope(model, all, what) : drawing.diagrams(model, load, what);
      return [shown ? `largest ${inUnit(shown.most, shown.unit, model.digits)}; ${state.isEnvelope() ? 'largest of all cases blue, smallest orange and dashed' : 'positive blue, negative orange'}${what === 'moment' ? ', on the side that is pulled' : ''}` : 'there is none in this case'];
    }
    if (what !== 'stress') return [];
    if (solid) {
      drawing.stressScale(model, this.solids.most);
      return [];
    }
    const words = [];
    if (load?.stress) {
      drawing.stressScale(model, load.stress.size);
      words.push('the larger of tension and compression in each section');
    }
    words.push($('solid').checked || this.noWebGL ? 'stress by face needs WebGL, which this browser does not have' : 'solid profiles show the stress of each face');
    return words;
  }

  // Loads and reactions; what acts without an arrow in words.
  actions(load, mode, hurried) {
    const {state, drawing} = this;
    const words = $('loads').checked && load && !mode && !state.isEnvelope() && !hurried ? drawing.loads(state.model, load) : [];
    if ($('reactions').checked && load && !state.isEnvelope()) drawing.reactions(state.model, load);
    return words.length ? [`also acting: ${words.slice(0, 4).join(', ')}${words.length > 4 ? ' …' : ''}`] : [];
  }

  // Selection, names and axes.
  marks(hurried) {
    const {state, drawing} = this;
    const {model} = state;
    const chosen = model.members.findIndex((m) => m.name === state.chosen);
    if (chosen >= 0) drawing.member(model, this.spots, chosen, drawing.colours.chosen, 4);
    const point = model.points.find((p) => p.name === state.chosen);
    if (point) drawing.mark(this.camera.project(point.at));
    if ($('names').checked && !hurried) drawing.names(model, this.spots, state.chosen);
    drawing.axes();
    if (state.place) drawing.mark(this.spotAt(state.place));
  }

  hasSolids(load) {
    if (this.noWebGL) return false;
    try {
      this.solids ??= new Solids($('solids'));
      if (this.solidsOf !== load || !this.solids.mesh) this.solids.build(this.state.model, this.state.isEnvelope() ? null : load);
      this.solidsOf = load;
      return true;
    } catch {
      this.noWebGL = true;
      return false;
    }
  }

  // Where a place of a member is on the screen.
  spotAt({member, at}) {
    const m = this.state.model.members[member];
    const t = (at / m.length) * (samples - 1);
    const k = Math.min(Math.floor(t), samples - 2);
    const i = (member * samples + k) * 2;
    const f = t - k;
    return [0, 1].map((c) => this.spots[i + c] * (1 - f) + this.spots[i + 2 + c] * f);
  }

  // The place of a member that is nearest to a spot of the screen; null where none is near.
  pick(x, y) {
    const {state, spots} = this;
    let best = 14;
    let found = null;
    const n = state.model.members.length;
    for (let i = 0; i < n; ++i) {
      for (let k = 0; k + 1 < samples; ++k) {
        const a = (i * samples + k) * 2;
        const [ax, ay, bx, by] = [spots[a], spots[a + 1], spots[a + 2], spots[a + 3]];
        const [dx, dy] = [bx - ax, by - ay];
        const l = dx * dx + dy * dy;
        const t = l > 0 ? Math.min(Math.max(((x - ax) * dx + (y - ay) * dy) / l, 0), 1) : 0;
        const distance = Math.hypot(ax + t * dx - x, ay + t * dy - y);
        if (distance < best) {
          best = distance;
          found = {member: i, at: (state.model.members[i].length * (k + t)) / (samples - 1)};
        }
      }
    }
    if (!found) return null;
    const places = state.placesOf(found.member);
    if (places.length) found.at = nearestPlace(places, found.at);
    return found;
  }
}
