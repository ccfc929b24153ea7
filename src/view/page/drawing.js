// The structure on the page: lines, loads, supports, diagrams and names.
import {add, dot, size, times} from './vectors.js';
import {extremes, pieceAt} from './values.js';
import {courses, samples} from './shape.js';
import {clean, number, shortInUnit} from './format.js';

const light = {ink: '#1c2630', quiet: '#51606d', member: '#24486b', rest: '#a9b4be', load: '#a8321a', reaction: '#6a2a8a', positive: '#1565a8', negative: '#b9540c', chosen: '#0b7a4b', page: '#ffffff'};
const dark = {ink: '#e6ebf0', quiet: '#a9b5c0', member: '#9cc3e6', rest: '#5b6874', load: '#ff9d7a', reaction: '#d0a2f0', positive: '#7fbcf5', negative: '#f2a35e', chosen: '#6fe0ac', page: '#161b21'};

// The size of a load with the whole of a spread force, and with the point of the section that it acts through.
const withRemark = (model, load, factor, text) => {
  const whole = load.total === undefined ? '' : ` (${shortInUnit(load.total * Math.abs(factor), model.units.force, model.digits)} in all)`;
  return `${text}${whole}${load.remark ? ` ${load.remark}` : ''}`;
};

export class Drawing {
  constructor(canvas) {
    this.canvas = canvas;
    this.context = canvas.getContext('2d');
  }

  begin(camera, ratio, isDark) {
    this.camera = camera;
    this.colours = isDark ? dark : light;
    const [w, h] = [Math.round(camera.width * ratio), Math.round(camera.height * ratio)];
    if (this.canvas.width !== w || this.canvas.height !== h) [this.canvas.width, this.canvas.height] = [w, h];
    const c = this.context;
    c.setTransform(ratio, 0, 0, ratio, 0, 0);
    c.clearRect(0, 0, camera.width, camera.height);
    c.font = "12px 'DejaVu Sans',Verdana,sans-serif";
    c.textBaseline = 'middle';
    this.taken = [];
  }

  path(points, close = false) {
    const c = this.context;
    points.forEach(([x, y], i) => (i === 0 ? c.moveTo(x, y) : c.lineTo(x, y)));
    if (close) c.closePath();
  }

  line(points, colour, width, dash = []) {
    const c = this.context;
    c.beginPath();
    this.path(points);
    c.strokeStyle = colour;
    c.lineWidth = width;
    c.setLineDash(dash);
    c.lineJoin = 'round';
    c.stroke();
    c.setLineDash([]);
  }

  // All lines of one look at once: thousands are drawn in one go.
  lines(all, colour, width, dash = []) {
    const c = this.context;
    c.strokeStyle = colour;
    c.lineWidth = width;
    c.setLineDash(dash);
    // Very long paths are slower than some shorter ones.
    const batch = 64;
    for (let i = 0; i < all.length; i += batch) {
      c.beginPath();
      for (const points of all.slice(i, i + batch)) this.path(points);
      c.stroke();
    }
    c.setLineDash([]);
  }

  arrow(tail, tip, colour, width = 1.6) {
    this.arrows([[tail, tip]], colour, width);
  }

  // Many of one look at once.
  arrows(all, colour, width) {
    const shafts = [];
    const c = this.context;
    c.beginPath();
    for (const [tail, tip] of all) {
      const d = [tip[0] - tail[0], tip[1] - tail[1]];
      const l = Math.hypot(...d);
      if (l < 3) continue;
      const [ux, uy] = [d[0] / l, d[1] / l];
      const head = Math.min(9, l * 0.8);
      const base = [tip[0] - ux * head, tip[1] - uy * head];
      shafts.push([tail, base]);
      this.path([tip, [base[0] - uy * head * 0.36, base[1] + ux * head * 0.36], [base[0] + uy * head * 0.36, base[1] - ux * head * 0.36]], true);
    }
    c.fillStyle = colour;
    c.fill();
    this.lines(shafts, colour, width);
  }

  // Words near a place, where nothing is written yet; left out where all places are taken.
  label(words, at, colour, bold = false, towards = [0, -1]) {
    const c = this.context;
    c.font = `${bold ? 'bold ' : ''}12px 'DejaVu Sans',Verdana,sans-serif`;
    const w = c.measureText(words).width;
    const gap = 9;
    const tries = [towards, [0, -1], [1, -0.4], [-1, -0.4], [0, 1], [1, 0.6], [-1, 0.6]];
    for (const [dx, dy] of tries) {
      const l = Math.hypot(dx, dy) || 1;
      const [ux, uy] = [dx / l, dy / l];
      const x = at[0] + ux * gap + (ux > 0.35 ? 0 : ux < -0.35 ? -w : -w / 2);
      const y = at[1] + uy * (gap + 4);
      const box = [x - 2, y - 8, x + w + 2, y + 8];
      if (box[0] < 0 || box[2] > this.camera.width || box[1] < 0 || box[3] > this.camera.height) continue;
      if (this.taken.some((b) => b[0] < box[2] && box[0] < b[2] && b[1] < box[3] && box[1] < b[3])) continue;
      this.taken.push(box);
      c.lineWidth = 3;
      c.strokeStyle = this.colours.page;
      c.lineJoin = 'round';
      c.strokeText(words, x, y);
      c.fillStyle = colour;
      c.fillText(words, x, y);
      return;
    }
  }

  // Where each member lies on the screen, moved by so many times its displacement.
  courses(rest, movement, scale) {
    const n = rest.length / (3 * samples);
    const {right, up, centre, zoom, width, height} = this.camera;
    const out = new Float64Array(n * samples * 2);
    for (let i = 0; i < n * samples; ++i) {
      const x = rest[3 * i] + (movement ? scale * movement[3 * i] : 0) - centre[0];
      const y = rest[3 * i + 1] + (movement ? scale * movement[3 * i + 1] : 0) - centre[1];
      const z = rest[3 * i + 2] + (movement ? scale * movement[3 * i + 2] : 0) - centre[2];
      out[2 * i] = width / 2 + zoom * (x * right[0] + y * right[1] + z * right[2]);
      out[2 * i + 1] = height / 2 - zoom * (x * up[0] + y * up[1] + z * up[2]);
    }
    return out;
  }

  // `straight`: at rest, from end to end.
  members(model, spots, colour, width, dash = [], straight = false, hurried = false) {
    const beams = [];
    const links = [];
    // Of very many, each is drawn in fewer steps.
    const step = straight ? samples - 1 : hurried ? 12 : model.members.length > 400 ? 6 : 1;
    model.members.forEach((m, i) => {
      const points = [];
      for (let k = 0; k < samples; k += step) points.push([spots[(i * samples + k) * 2], spots[(i * samples + k) * 2 + 1]]);
      (m.kind === 'beam' ? beams : links).push(points);
    });
    this.lines(beams, colour, width, dash);
    this.lines(links, colour, Math.max(1, width * 0.55), dash);
  }

  member(model, spots, i, colour, width) {
    const points = [];
    for (let k = 0; k < samples; ++k) points.push([spots[(i * samples + k) * 2], spots[(i * samples + k) * 2 + 1]]);
    this.line(points, colour, width);
  }

  // Rigid arms from the points to the axes of members; members that do not act in this case.
  arms(model) {
    const all = [];
    for (const m of model.members)
      for (const [end, point] of [[m.a, m.through[0][0]], [m.b, m.through.at(-1)[0]]]) {
        const p = model.points[point].at;
        if (Math.hypot(p[0] - end[0], p[1] - end[1], p[2] - end[2]) > 1e-9) all.push([this.camera.project(p), this.camera.project(end)]);
      }
    if (all.length) this.lines(all, this.colours.quiet, 2, [2, 3]);
  }
  slack(model, load, spots) {
    load.members.forEach((result, i) => {
      if (!result.slack) return;
      const a = i * samples * 2;
      const b = a + 2 * (samples - 1);
      this.line([[spots[a], spots[a + 1]], [spots[b], spots[b + 1]]], this.colours.page, 3.4);
      this.line([[spots[a], spots[a + 1]], [spots[b], spots[b + 1]]], this.colours.rest, 1.2, [3, 5]);
    });
  }

  // Without solid profiles: the largest normal stress of each section along the members, compression if that is larger.
  stress(model, load, spots) {
    const {size: most, members} = load.stress;
    const c = this.context;
    members.forEach((values, i) => {
      const {places} = load.members[i];
      const at = (x) => {
        const t = (x / model.members[i].length) * (samples - 1);
        const k = Math.min(Math.floor(t), samples - 2);
        const s = (i * samples + k) * 2;
        return [0, 1].map((n) => spots[s + n] * (1 - (t - k)) + spots[s + 2 + n] * (t - k));
      };
      for (let k = 0; k + 1 < places.length; ++k) {
        if (places[k + 1][0] - places[k][0] <= 0) continue;
        const worst = [values[k], values[k + 1]].map(([tension, compression]) => (tension === null ? 0 : tension >= -compression ? tension : compression));
        const value = (worst[0] + worst[1]) / 2;
        const share = most > 0 ? Math.min(Math.abs(value) / most, 1) : 0;
        const to = value < 0 ? [0.83, 0.38, 0.08] : [0.09, 0.36, 0.66];
        const mix = to.map((v, n) => Math.round(255 * ([0.9, 0.92, 0.93][n] + (v - [0.9, 0.92, 0.93][n]) * Math.sqrt(share))));
        const [a, b] = [at(places[k][0]), at(places[k + 1][0])];
        this.line([a, b], `rgb(${mix})`, 8);
        if (value < 0 && share > 0.02) {
          const [x, y] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
          const l = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
          c.beginPath();
          c.moveTo(x - (4 * (b[1] - a[1])) / l, y + (4 * (b[0] - a[0])) / l);
          c.lineTo(x + (4 * (b[1] - a[1])) / l, y - (4 * (b[0] - a[0])) / l);
          c.strokeStyle = this.colours.page;
          c.lineWidth = 1.3;
          c.stroke();
        }
      }
    });
  }

  // A line with short strokes off its far side.
  ground([x, y], [ux, uy], half) {
    const strokes = [];
    for (let i = 0; i < 5; ++i) {
      const t = half * (i / 2 - 1);
      const from = [x - uy * t, y + ux * t];
      strokes.push([from, [from[0] + (ux + uy) * 4, from[1] + (uy - ux) * 4]]);
    }
    this.lines(strokes, this.colours.quiet, 1);
    this.line([[x + uy * half, y - ux * half], [x - uy * half, y + ux * half]], this.colours.quiet, 2.4);
  }

  fixedSupport(at, away) {
    this.ground(at, away, 11);
  }

  pinnedSupport([x, y]) {
    this.line([[x, y], [x - 8, y + 13], [x + 8, y + 13], [x, y]], this.colours.quiet, 1.4);
    this.ground([x, y + 13], [0, 1], 11);
  }

  // The direction on the screen from the members that end at a point; downwards where they cancel.
  awayFromMembers(model, point, at) {
    let sum = [0, 0];
    for (const m of model.members) {
      const [first, last] = [m.through[0][0], m.through.at(-1)[0]];
      if (first !== point && last !== point) continue;
      const other = this.camera.project(first === point ? m.b : m.a);
      const l = Math.hypot(at[0] - other[0], at[1] - other[1]) || 1;
      sum = [sum[0] + (at[0] - other[0]) / l, sum[1] + (at[1] - other[1]) / l];
    }
    const l = Math.hypot(...sum);
    return l > 0.3 ? [sum[0] / l, sum[1] / l] : [0, 1];
  }

  supports(model) {
    const axes = [[1, 0, 0], [0, 1, 0], [0, 0, 1]];
    const away = this.camera.towards;
    const [stems, feet] = [[], []];
    for (const s of model.supports) {
      const at = this.camera.project(model.points[s.point].at);
      if (model.plane && s.held[0] && s.held[1]) {
        if (s.held[5]) this.fixedSupport(at, this.awayFromMembers(model, s.point, at));
        else this.pinnedSupport(at);
        continue;
      }
      const springs = axes.map((_, k) => s.spring[k] > 0);
      const list = [];
      axes.forEach((d, k) => (s.held[k] || springs[k]) && list.push([d, springs[k]]));
      for (const d of s.along) list.push([d, false]);
      for (const [d, spring] of list) {
        if (Math.abs(dot(d, away)) > 0.97) continue;
        const v = [dot(d, this.camera.right), -dot(d, this.camera.up)];
        const l = Math.hypot(...v);
        const [ux, uy] = [v[0] / l, v[1] / l];
        const foot = [at[0] - ux * 15, at[1] - uy * 15];
        if (spring) {
          const zig = [at];
          for (let k = 1; k < 6; ++k) {
            const side = k % 2 ? 4 : -4;
            zig.push([at[0] - ux * (2 + 2.2 * k) - uy * side, at[1] - uy * (2 + 2.2 * k) + ux * side]);
          }
          zig.push(foot);
          this.line(zig, this.colours.quiet, 1.2);
        } else {
          stems.push([at, foot]);
        }
        feet.push([[foot[0] - uy * 8, foot[1] + ux * 8], [foot[0] + uy * 8, foot[1] - ux * 8]]);
      }
      const clamped = s.held[3] || s.held[4] || s.held[5];
      if (clamped && (s.held[0] || s.held[1])) {
        const c = this.context;
        c.fillStyle = this.colours.quiet;
        c.fillRect(at[0] - 5, at[1] - 5, 10, 10);
      }
    }
    this.lines(stems, this.colours.quiet, 1.6);
    this.lines(feet, this.colours.quiet, 3);
  }

  // Forces by size within their kind; what has no arrow is said in words.
  loads(model, load) {
    const {colours, camera} = this;
    const terms = model.cases[load.index].terms;
    let [mostForce, mostLine] = [0, 0];
    for (const [k, factor] of terms) {
      for (const f of model.loads[k].forces) if (f.force) mostForce = Math.max(mostForce, size(f.force) * Math.abs(factor));
      for (const l of model.loads[k].lines) mostLine = Math.max(mostLine, size(l.first) * Math.abs(factor), size(l.last) * Math.abs(factor));
    }
    // Of very many forces some values are enough.
    let values = 40;
    const [forces, rows] = [[], []];
    for (const [k, factor] of terms) {
      for (const f of model.loads[k].forces) {
        const tip = camera.project(f.at);
        if (f.force) {
          const v = times(f.force, (factor * 55) / mostForce);
          const seen = [dot(v, camera.right), -dot(v, camera.up)];
          const l = Math.hypot(...seen);
          const longer = l > 0 && l < 14 ? 14 / l : 1;
          const tail = [tip[0] - seen[0] * longer, tip[1] - seen[1] * longer];
          forces.push([tail, tip]);
          if (values-- > 0) this.label(withRemark(model, f, factor, shortInUnit(size(f.force) * Math.abs(factor), model.units.force, model.digits)), tail, colours.load, false, [-seen[0], -seen[1]]);
        } else {
          const c = this.context;
          c.beginPath();
          c.arc(tip[0], tip[1], 16, -2.4, 1.6);
          c.strokeStyle = colours.load;
          c.lineWidth = 1.6;
          c.stroke();
          this.label(shortInUnit(size(f.moment) * Math.abs(factor), model.units.moment, model.digits), [tip[0] + 14, tip[1] - 14], colours.load, false, [1, -1]);
        }
      }
      for (const l of model.loads[k].lines) {
        const steps = 8;
        const tails = [];
        for (let i = 0; i <= steps; ++i) {
          const t = i / steps;
          const v = times(add(times(l.first, 1 - t), times(l.last, t)), (factor * 34) / mostLine);
          const tip = camera.project(add(times(l.a, 1 - t), times(l.b, t)));
          const tail = [tip[0] - dot(v, camera.right), tip[1] + dot(v, camera.up)];
          tails.push(tail);
          rows.push([tail, tip]);
        }
        this.line(tails, colours.load, 1);
        const largest = Math.max(size(l.first), size(l.last)) * Math.abs(factor);
        this.label(withRemark(model, l, factor, shortInUnit(largest, model.units.line, model.digits)), tails[size(l.first) >= size(l.last) ? 2 : steps - 2], colours.load);
      }
    }
    this.arrows(forces, colours.load, 1.6);
    this.arrows(rows, colours.load, 1);
    return [...new Set(model.cases[load.index].words)];
  }

  reactions(model, load) {
    const {colours, camera} = this;
    const most = Math.max(...load.reactions.map((r) => Math.hypot(r[0], r[1], r[2])), 0);
    if (!(most > 0)) return;
    model.supports.forEach((s, i) => {
      const r = load.reactions[i].slice(0, 3);
      if (size(r) <= 1e-9 * most) return;
      const tip = camera.project(model.points[s.point].at);
      const v = times(r, 60 / most);
      const seen = [dot(v, camera.right), -dot(v, camera.up)];
      const l = Math.hypot(...seen);
      const longer = l > 0 && l < 20 ? 20 / l : 1;
      const tail = [tip[0] - seen[0] * longer, tip[1] - seen[1] * longer];
      this.arrow(tail, tip, colours.reaction, 2.2);
      const parts = ['x', 'y', 'z'].map((a, k) => [a, clean(r[k], load.sizes.force)]).filter(([, value]) => value !== 0);
      this.label(parts.map(([a, value]) => `${a} ${number(value / model.units.force[1], model.digits)}`).join('  ') + ` ${model.units.force[0]}`, tail, colours.reaction, true, [-seen[0], -seen[1]]);
    });
  }

  // N, V, M or T on the undeformed members, to one scale; values at extremes and ends.
  diagrams(model, load, what) {
    const {camera, colours} = this;
    // The courses of a case, and their extremes, do not change while it is turned.
    load.courses ??= {};
    const all = (load.courses[what] ??= courses(model, load, what).map((c) => ({...c, extremes: extremes(c.pieces)})));
    const force = what === 'axial' || what === 'shear';
    const unitOf = force ? model.units.force : model.units.moment;
    let most = 0;
    for (const c of all) {
      c.labels = null;
      most = Math.max(most, c.extremes.max.value, -c.extremes.min.value);
    }
    const noise = 1e-9 * (force ? load.sizes.force : Math.max(load.sizes.moment, 1e-300));
    if (!(most > noise)) return null;
    const reach = Math.min(camera.width, camera.height) * 0.13;
    const shares = all.length > 60 ? 0.25 : all.length > 25 ? 0.1 : 0.03;
    // Of very many the largest values alone are written.
    const written = 80;
    const sizes = all.map((c) => Math.max(c.extremes.max.value, -c.extremes.min.value)).sort((a, b) => b - a);
    const least = all.length > written ? sizes[written] : 0;
    const areas = [new Path2D(), new Path2D()];
    const edges = [new Path2D(), new Path2D()];
    for (const c of all) {
      const m = model.members[c.member];
      if (what === 'axial' && m.kind === 'link') {
        const force = pieceAt(c.pieces, m.length / 2);
        c.labels = () => this.bar(m, force, most, noise, unitOf, model.digits, Math.abs(force) >= least);
        continue;
      }
      const seen = [dot(c.direction, camera.right), -dot(c.direction, camera.up)];
      const l = Math.hypot(...seen);
      if (l < 0.05) continue;
      const k = reach / most;
      const spot = (x, value) => {
        const p = camera.project(add(times(m.a, 1 - x / m.length), times(m.b, x / m.length)));
        return [p[0] + seen[0] * value * k, p[1] + seen[1] * value * k];
      };
      for (const piece of c.pieces) {
        // Parts of one sign, each as one line from where it begins to where it ends.
        const n = piece.length <= 4 ? 1 : 24;
        const run = [];
        const end = (last) => {
          if (run.length > 1) {
            const sign = run.reduce((sum, [, v]) => sum + v, 0) >= 0 ? 0 : 1;
            const spots = run.map(([x, v]) => spot(x, v));
            areas[sign].moveTo(...spot(run[0][0], 0));
            for (const s of spots) areas[sign].lineTo(...s);
            areas[sign].lineTo(...spot(run.at(-1)[0], 0));
            areas[sign].closePath();
            edges[sign].moveTo(...(run[0][0] === piece[0] ? spot(piece[0], 0) : spots[0]));
            for (const s of spots) edges[sign].lineTo(...s);
            if (last) edges[sign].lineTo(...spot(piece[1], 0));
          }
          run.length = 0;
        };
        for (let i = 0; i <= n; ++i) {
          const x = piece[0] + ((piece[1] - piece[0]) * i) / n;
          const v = pieceAt([piece], x);
          const before = run.at(-1);
          if (before && before[1] * v < 0) {
            const zero = before[0] + ((x - before[0]) * before[1]) / (before[1] - v);
            run.push([zero, 0]);
            end(false);
            run.push([zero, 0]);
          }
          run.push([x, v]);
        }
        end(true);
      }
      const told = [];
      const tell = (x, value, bold) => {
        if (Math.abs(value) <= Math.max(shares * most, least)) return;
        if (told.some(([a, v]) => Math.abs(a - x) < 0.02 * m.length && Math.abs(v - value) < 1e-6 * most)) return;
        told.push([x, value]);
        const tip = spot(x, value);
        const side = [seen[0] * Math.sign(value), seen[1] * Math.sign(value)];
        this.label(`${c.symbol}${number(value / unitOf[1], model.digits)}`, tip, value > 0 ? colours.positive : colours.negative, bold, side);
      };
      const {max, min} = c.extremes;
      const governs = (v) => Math.abs(v) >= most * (1 - 1e-9);
      if (max.value - min.value <= 1e-9 * Math.max(Math.abs(max.value), Math.abs(min.value))) c.labels = () => tell(m.length / 2, max.value, governs(max.value));
      else
        c.labels = () => {
          for (const e of [max, min]) tell(e.at, e.value, governs(e.value));
          tell(0, pieceAt(c.pieces, 0), false);
          tell(m.length, pieceAt(c.pieces, m.length, true), false);
        };
    }
    const context = this.context;
    [colours.positive, colours.negative].forEach((colour, sign) => {
      context.fillStyle = colour;
      context.globalAlpha = 0.17;
      context.fill(areas[sign]);
      context.globalAlpha = 1;
      context.strokeStyle = colour;
      context.lineWidth = 1.3;
      // Negative values are also dashed, so that they do not differ by colour alone.
      context.setLineDash(sign === 1 && what === 'axial' ? [5, 3] : []);
      context.stroke(edges[sign]);
      context.setLineDash([]);
    });
    for (const c of all) if (c.labels) c.labels();
    return {most, unit: unitOf};
  }

  // A link has one force: it is as thick as that is large, with the value written along it.
  bar(m, value, most, noise, unitOf, digits, written) {
    const {camera, colours, context} = this;
    const [a, b] = [camera.project(m.a), camera.project(m.b)];
    const none = Math.abs(value) <= noise;
    const colour = none ? colours.quiet : value > 0 ? colours.positive : colours.negative;
    this.line([a, b], colour, none ? 1.5 : 2 + (7 * Math.abs(value)) / most, value < 0 && !none ? [9, 4] : []);
    let angle = Math.atan2(b[1] - a[1], b[0] - a[0]);
    if (angle > Math.PI / 2 || angle <= -Math.PI / 2) angle += Math.PI;
    if (!written) return;
    const words = none ? '0' : number(value / unitOf[1], digits);
    context.font = "12px 'DejaVu Sans',Verdana,sans-serif";
    const wide = context.measureText(words).width;
    if (Math.hypot(b[0] - a[0], b[1] - a[1]) < wide + 8) return;
    // Off the middle, where bars cross.
    const at = [0, 1].map((c) => a[c] + (b[c] - a[c]) * 0.42);
    context.save();
    context.translate(at[0], at[1]);
    context.rotate(angle);
    context.lineWidth = 3;
    context.strokeStyle = colours.page;
    context.lineJoin = 'round';
    context.strokeText(words, -wide / 2, -11);
    context.fillStyle = colour;
    context.fillText(words, -wide / 2, -11);
    context.restore();
    this.taken.push([at[0] - 14, at[1] - 14, at[0] + 14, at[1] + 14]);
  }

  // The larger and the smaller of several cases, as two lines.
  envelope(model, loads, what) {
    const {camera, colours} = this;
    const force = what === 'axial' || what === 'shear';
    const unitOf = force ? model.units.force : model.units.moment;
    const sets = loads.map((load) => courses(model, load, what));
    let most = 0;
    for (const set of sets) for (const c of set) {
      const e = extremes(c.pieces);
      most = Math.max(most, e.max.value, -e.min.value);
    }
    if (!(most > 0)) return null;
    const k = (Math.min(camera.width, camera.height) * 0.13) / most;
    sets[0].forEach((c, i) => {
      const m = model.members[c.member];
      const seen = [dot(c.direction, camera.right), -dot(c.direction, camera.up)];
      if (Math.hypot(...seen) < 0.05) return;
      const n = 40;
      const [above, below] = [[], []];
      let [top, bottom] = [[0, -Infinity], [0, Infinity]];
      for (let j = 0; j <= n; ++j) {
        const x = (m.length * j) / n;
        const values = sets.map((set) => pieceAt(set[i].pieces, x));
        const [high, low] = [Math.max(...values), Math.min(...values)];
        const p = camera.project(add(times(m.a, 1 - x / m.length), times(m.b, x / m.length)));
        above.push([p[0] + seen[0] * high * k, p[1] + seen[1] * high * k]);
        below.push([p[0] + seen[0] * low * k, p[1] + seen[1] * low * k]);
      }
      for (const set of sets) {
        const e = extremes(set[i].pieces);
        if (e.max.value > top[1]) top = [e.max.at, e.max.value];
        if (e.min.value < bottom[1]) bottom = [e.min.at, e.min.value];
      }
      this.line(above, colours.positive, 1.5);
      this.line(below, colours.negative, 1.5, [5, 3]);
      for (const [x, value] of [top, bottom]) {
        if (Math.abs(value) <= 0.05 * most) continue;
        const p = camera.project(add(times(m.a, 1 - x / m.length), times(m.b, x / m.length)));
        this.label(`${c.symbol}${number(value / unitOf[1], model.digits)}`, [p[0] + seen[0] * value * k, p[1] + seen[1] * value * k], value > 0 ? colours.positive : colours.negative);
      }
    });
    return {most, unit: unitOf};
  }

  names(model, spots, chosen) {
    const {camera, colours} = this;
    const many = model.points.length > 160;
    const c = this.context;
    c.fillStyle = colours.ink;
    const places = model.points.map((p) => camera.project(p.at));
    const r = many ? 1.6 : 2.4;
    c.beginPath();
    for (const at of places) {
      c.moveTo(at[0] + r, at[1]);
      c.arc(at[0], at[1], r, 0, 7);
    }
    c.fill();
    model.points.forEach((p, i) => {
      const at = places[i];
      if (at[0] < 0 || at[1] < 0 || at[0] > camera.width || at[1] > camera.height) return;
      if (!many || camera.zoom > 250) this.label(p.name, at, p.name === chosen ? colours.chosen : colours.ink, true, [0.4, -1]);
    });
    if (model.members.length > 160) return;
    // Next to the member, a little off its middle, where points and loads often are.
    const k = 5;
    model.members.forEach((m, i) => {
      const a = (i * samples + k) * 2;
      const at = [spots[a], spots[a + 1]];
      const along = [spots[a + 2] - at[0], spots[a + 3] - at[1]];
      const side = Math.abs(along[0]) >= Math.abs(along[1]) ? [along[1], -Math.abs(along[0])] : [Math.abs(along[1]), -Math.abs(along[0])];
      this.label(m.name, at, colours.member, false, side);
    });
  }

  axes() {
    const {camera, colours} = this;
    const at = [camera.width - 56, camera.height - 48];
    const named = [['x', [1, 0, 0]], ['y', [0, 1, 0]], ['z', [0, 0, 1]]];
    for (const [name, d] of named) {
      const v = [dot(d, camera.right), -dot(d, camera.up)];
      if (Math.hypot(...v) < 0.12) continue;
      const tip = [at[0] + v[0] * 28, at[1] + v[1] * 28];
      this.arrow(at, tip, colours.quiet, 1.4);
      this.context.fillStyle = colours.quiet;
      this.context.font = "12px 'DejaVu Sans',Verdana,sans-serif";
      this.context.fillText(name, tip[0] + v[0] * 8 - 3, tip[1] + v[1] * 8);
    }
  }

  mark(at) {
    const c = this.context;
    c.beginPath();
    c.arc(at[0], at[1], 5, 0, 7);
    c.strokeStyle = this.colours.chosen;
    c.lineWidth = 2.5;
    c.stroke();
  }

  // The scale of stress colours.
  stressScale(model, most) {
    const c = this.context;
    const [w, h] = [180, 12];
    const [x, y] = [this.camera.width - w - 110, this.camera.height - 34];
    for (let i = 0; i < w; ++i) {
      const share = (2 * i) / w - 1;
      const mix = (a, b) => Math.round(255 * (a + (b - a) * Math.sqrt(Math.abs(share))));
      const to = share < 0 ? [0.83, 0.38, 0.08] : [0.09, 0.36, 0.66];
      c.fillStyle = `rgb(${mix(0.9, to[0])},${mix(0.92, to[1])},${mix(0.93, to[2])})`;
      c.fillRect(x + i, y, 1.5, h);
    }
    c.strokeStyle = this.colours.quiet;
    c.lineWidth = 1;
    for (let i = 6; i < w / 2; i += 8) this.line([[x + i, y + h], [x + i + 6, y]], 'rgba(60,20,0,0.55)', 1);
    c.fillStyle = this.colours.ink;
    c.font = "11px 'DejaVu Sans',Verdana,sans-serif";
    const stress = model.units.stress;
    const words = [[x, `-${number(most / stress[1], 3)}`], [x + w / 2, '0'], [x + w, `${number(most / stress[1], 3)} ${stress[0]}`]];
    for (const [at, text] of words) c.fillText(text, at - c.measureText(text).width / 2, y - 8);
    c.fillText('compression, hatched', x, y + h + 9);
    c.fillText('tension', x + w - c.measureText('tension').width, y + h + 9);
  }
}
