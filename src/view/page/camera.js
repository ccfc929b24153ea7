// Parallel lines of sight: which directions lie to the right and up on the screen, what is in the middle, how large.
import {add, cross, dot, sub, times, turned, unit} from './vectors.js';

export class Camera {
  constructor() {
    this.right = [1, 0, 0];
    this.up = [0, 1, 0];
    this.centre = [0, 0, 0];
    this.zoom = 100; // pixels for a metre
    this.width = 800;
    this.height = 600;
  }

  get towards() {
    return cross(this.right, this.up);
  }

  project(p) {
    const d = sub(p, this.centre);
    return [this.width / 2 + dot(d, this.right) * this.zoom, this.height / 2 - dot(d, this.up) * this.zoom];
  }

  // Standard views, as those of `draw`: from the front, the right, above, a corner.
  view(name, up) {
    const x = [1, 0, 0];
    const away = cross(up, x);
    if (name === 'side') [this.right, this.up] = [away, up];
    else if (name === 'top') [this.right, this.up] = [x, away];
    else if (name === 'space') {
      const turn = (32 * Math.PI) / 180;
      const tilt = (24 * Math.PI) / 180;
      this.right = add(times(x, Math.cos(turn)), times(away, Math.sin(turn)));
      const back = sub(times(away, Math.cos(turn)), times(x, Math.sin(turn)));
      this.up = add(times(up, Math.cos(tilt)), times(back, Math.sin(tilt)));
    } else [this.right, this.up] = [x, up];
  }

  // Across turns about what is up in the structure, so that posts stay upright; up and down about the screen's width.
  turn(across, upwards, vertical) {
    this.right = turned(this.right, vertical, -across);
    this.up = turned(this.up, vertical, -across);
    this.up = unit(turned(this.up, this.right, upwards));
    this.right = unit(sub(this.right, times(this.up, dot(this.right, this.up))));
  }

  move(dx, dy) {
    this.centre = sub(this.centre, times(this.right, dx / this.zoom));
    this.centre = add(this.centre, times(this.up, dy / this.zoom));
  }

  zoomAt(factor, x, y) {
    const dx = x - this.width / 2;
    const dy = y - this.height / 2;
    this.move(-dx, -dy);
    this.zoom = Math.min(Math.max(this.zoom * factor, 1e-4), 1e8);
    this.move(dx, dy);
  }

  // All points within the screen, with room for names and diagrams.
  fit(points) {
    if (points.length === 0) return;
    let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const p of points) {
      const x = dot(p, this.right);
      const y = dot(p, this.up);
      left = Math.min(left, x);
      right = Math.max(right, x);
      low = Math.min(low, y);
      high = Math.max(high, y);
    }
    const wide = Math.max(this.width - 190, 60);
    const tall = Math.max(this.height - 170, 60);
    const zoom = Math.min(wide / Math.max(right - left, 1e-9), tall / Math.max(high - low, 1e-9));
    this.zoom = Number.isFinite(zoom) && zoom < 1e8 ? zoom : 100;
    const middle = add(times(this.right, (left + right) / 2), times(this.up, (low + high) / 2));
    // The depth of the middle is that of the points.
    const depth = points.reduce((sum, p) => sum + dot(p, this.towards), 0) / points.length;
    this.centre = add(middle, times(this.towards, depth));
  }
}
