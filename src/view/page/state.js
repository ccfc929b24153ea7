// Data of a model and the selection, without any drawing.
import {clean, figures, inUnit, number} from './format.js';
import {entriesAt, nearestPlace} from './values.js';

export class State {
  constructor() {
    this.model = null;
    this.loads = new Map(); // results of the cases that are here, by their index
    this.index = 0; // of the case, or 'envelope'
    this.chosen = null; // the name of a member or point
    this.place = null; // {member, at}: where values are shown
  }

  load() {
    return this.loads.get(this.isEnvelope() ? this.model.governing : this.index) ?? null;
  }
  isEnvelope() {
    return this.index === 'envelope';
  }
  assessed() {
    return this.model.cases.map((c, i) => [c, i]).filter(([c]) => c.assessed).map(([, i]) => i);
  }
  caseName() {
    return this.isEnvelope() ? `envelope of ${this.assessed().length}` : this.model.cases[this.index].name;
  }
  chosenName() {
    return this.chosen;
  }
  // The shape of vibration or buckling of this name, if it is one.
  modeOf(what) {
    const [, index] = /^mode-(\d+)$/.exec(what) ?? [];
    return index === undefined || this.isEnvelope() ? null : this.load()?.modes?.[index] ?? null;
  }

  // Another model; what was chosen stays chosen where it is there too.
  adopt(model) {
    const before = this.model;
    this.model = model;
    const name = before && !this.isEnvelope() && before.cases[this.index] ? before.cases[this.index].name : null;
    const same = model.cases.findIndex((c) => c.name === name);
    if (!(this.isEnvelope() && this.assessed().length > 1)) this.index = same >= 0 ? same : model.governing;
    if (this.place && !model.members[this.place.member]) this.place = null;
    if (this.chosen && ![...model.members, ...model.points].some((o) => o.name === this.chosen)) this.chosen = null;
  }

  // Another case, whose results are here; the place stays as near as may be.
  select(index) {
    this.index = index;
    if (!this.place) return;
    const places = this.placesOf(this.place.member);
    if (places.length) this.place.at = nearestPlace(places, this.place.at);
  }

  placesOf(member) {
    const load = this.load();
    if (!load) return [];
    if (!this.isEnvelope()) return load.members[member].places;
    // Those that every case has.
    const others = this.assessed().map((i) => this.loads.get(i)).filter((l) => l && l !== load);
    return load.members[member].places.filter((p) => others.every((l) => entriesAt(l.members[member].places, p[0]).length > 0));
  }

  stepMember(by) {
    const n = this.model.members.length;
    const from = this.place ? this.place.member : by > 0 ? -1 : 0;
    const member = (((from + by) % n) + n) % n;
    const places = this.placesOf(member);
    this.place = {member, at: places.length ? nearestPlace(places, this.model.members[member].length / 2) : 0};
  }

  stepPlace(by) {
    if (!this.place) return this.stepMember(1);
    const all = [...new Set(this.placesOf(this.place.member).map((p) => p[0]))];
    const i = all.findIndex((a) => Math.abs(a - this.place.at) <= 1e-9 * Math.max(1, a));
    this.place = {...this.place, at: all[Math.min(Math.max(i + by, 0), all.length - 1)]};
  }

  // Tension, compression, shear and von Mises stress of each side of a place.
  stressAt(load, member, at) {
    const {places} = load.members[member];
    return load.stress.members[member].filter((_, i) => Math.abs(places[i][0] - at) <= 1e-9 * Math.max(1, Math.abs(at)));
  }

  // [name, words for each side]: the lines of the readout.
  valuesAt(place) {
    return this.isEnvelope() ? this.rangesAt(place) : this.valuesOfCaseAt(place);
  }

  rangesAt({member, at}) {
    const {model} = this;
    const rows = [];
    const loads = this.assessed().map((i) => [model.cases[i].name, this.loads.get(i)]).filter(([, l]) => l);
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
    if (loads.every(([, l]) => l.stress)) range('von Mises', model.units.stress, 'stress', (l) => this.stressAt(l, member, at).at(-1)[3]);
    else rows.push(['stress', ['is being computed']]);
    return rows;
  }

  valuesOfCaseAt({member, at}) {
    const {model} = this;
    const rows = [];
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
    if (!load.stress) return [...rows, ['stress', ['is being computed']]];
    const stresses = this.stressAt(load, member, at);
    ['tension', 'compression', 'shear', 'von Mises'].forEach((symbol, k) => tell(symbol, model.units.stress, 'stress', (_, side) => stresses[side][k]));
    return rows;
  }
}
