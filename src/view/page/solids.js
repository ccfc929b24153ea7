// The members as solid profiles, by WebGL: extruded outlines that move with the member, coloured by the normal stress of
// each face. Compression is also hatched.
import {
  BufferAttribute, BufferGeometry, Color, DoubleSide, Mesh, OrthographicCamera, Scene, ShaderMaterial, ShapeUtils, Vector2,
  WebGLRenderer,
} from 'three';
import {bendingOf, pieceAt} from './values.js';
import {movementAt} from './shape.js';

// Along a member: enough that colours run evenly, fewer where there are many members.
const stationsFor = (members) => (members <= 150 ? 33 : members <= 800 ? 15 : 7);

const vertexShader = `
attribute vec3 movement;
attribute float stress;
uniform float scale;
varying float vStress;
varying vec3 vPlace;
void main() {
  vStress = stress;
  vec4 seen = modelViewMatrix * vec4(position + scale * movement, 1.0);
  vPlace = seen.xyz;
  gl_Position = projectionMatrix * seen;
}`;
const fragmentShader = `
uniform float most;
uniform vec3 plain;
uniform vec3 page;
uniform bool coloured;
varying float vStress;
varying vec3 vPlace;
void main() {
  vec3 normal = normalize(cross(dFdx(vPlace), dFdy(vPlace)));
  float light = 0.62 + 0.38 * abs(dot(normal, normalize(vec3(0.35, 0.55, 0.76))));
  vec3 colour = plain;
  if (coloured) {
    float share = most > 0.0 ? clamp(vStress / most, -1.0, 1.0) : 0.0;
    vec3 tension = vec3(0.09, 0.36, 0.66), compression = vec3(0.83, 0.38, 0.08);
    colour = mix(vec3(0.90, 0.92, 0.93), share < 0.0 ? compression : tension, sqrt(abs(share)));
    // Faces in compression are hatched, so that they do not differ by colour alone.
    if (share < -0.02 && mod(gl_FragCoord.x + gl_FragCoord.y, 9.0) < 2.0) colour *= 0.72;
  }
  gl_FragColor = vec4(colour * light, 1.0);
}`;

function twistAt(result, figureIndex, x) {
  if (figureIndex < 0) return 0;
  const places = result.places;
  let i = 0;
  while (i + 1 < places.length && places[i + 1][0] < x) ++i;
  const [a, b] = [places[i], places[Math.min(i + 1, places.length - 1)]];
  const span = b[0] - a[0];
  const t = span > 0 ? (x - a[0]) / span : 0;
  return a[2][figureIndex] * (1 - t) + b[2][figureIndex] * t;
}

export class Solids {
  // Throws where the browser has no WebGL.
  constructor(canvas) {
    this.renderer = new WebGLRenderer({canvas, antialias: true, alpha: true, preserveDrawingBuffer: true});
    this.scene = new Scene();
    this.camera = new OrthographicCamera();
    this.material = new ShaderMaterial({
      vertexShader, fragmentShader, side: DoubleSide,
      uniforms: {scale: {value: 0}, most: {value: 0}, coloured: {value: false}, plain: {value: new Color('#6f8fae')}, page: {value: new Color('#ffffff')}},
    });
    this.mesh = null;
    this.canvas = canvas;
  }

  // `load` may be missing: then nothing moves and nothing is stressed.
  build(model, load) {
    const stations = stationsFor(model.members.length);
    const places = [], moved = [], stressed = [], index = [];
    this.most = 0;
    model.members.forEach((m, i) => {
      const section = model.sections[m.section];
      const result = load ? load.members[i] : null;
      const stressAt = bendingOf(section, m.bends);
      const twist = result ? result.figures.indexOf('twist') : -1;
      const at = (name, x) => (result && result.pieces[name] ? pieceAt(result.pieces[name], x) : 0);
      const put = (x, y, z) => {
        const t = m.length > 0 ? x / m.length : 0;
        const move = result ? movementAt(m, result, x) : [0, 0, 0];
        const [ry, rz, rx] = [at('rotation_y', x), at('rotation_z', x), result ? twistAt(result, twist, x) : 0];
        const local = [ry * z - rz * y, -rx * z, rx * y];
        for (let c = 0; c < 3; ++c) {
          places.push(m.a[c] + (m.b[c] - m.a[c]) * t + y * m.y[c] + z * m.z[c]);
          moved.push(move[c] + local[0] * m.x[c] + local[1] * m.y[c] + local[2] * m.z[c]);
        }
        const sigma = result ? stressAt(at('axial', x), at('moment_y', x), at('moment_z', x), y, z) : 0;
        stressed.push(sigma);
        this.most = Math.max(this.most, Math.abs(sigma));
        return places.length / 3 - 1;
      };
      for (const outline of section.outlines) {
        const n = outline.length;
        const rows = [];
        for (let k = 0; k < stations; ++k) {
          const x = (m.length * k) / (stations - 1);
          rows.push(outline.map(([y, z]) => put(x, y, z)));
        }
        for (let k = 0; k + 1 < stations; ++k)
          for (let c = 0; c < n; ++c) {
            const [a, b] = [rows[k][c], rows[k][(c + 1) % n]];
            const [d, e] = [rows[k + 1][c], rows[k + 1][(c + 1) % n]];
            index.push(a, b, d, b, e, d);
          }
      }
      if (section.outlines.length === 0) return;
      const rings = section.outlines.map((o) => o.map(([y, z]) => new Vector2(y, z)));
      const flat = section.outlines.flat();
      const triangles = ShapeUtils.triangulateShape(rings[0], rings.slice(1));
      for (const x of [0, m.length]) {
        const cap = flat.map(([y, z]) => put(x, y, z));
        for (const [a, b, c] of triangles) index.push(cap[a], cap[b], cap[c]);
      }
    });
    if (this.mesh) {
      this.mesh.geometry.dispose();
      this.scene.remove(this.mesh);
    }
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(new Float32Array(places), 3));
    geometry.setAttribute('movement', new BufferAttribute(new Float32Array(moved), 3));
    geometry.setAttribute('stress', new BufferAttribute(new Float32Array(stressed), 1));
    geometry.setIndex(new BufferAttribute(new Uint32Array(index), 1));
    this.mesh = new Mesh(geometry, this.material);
    this.mesh.frustumCulled = false;
    this.scene.add(this.mesh);
  }

  draw(camera, reach, scale, coloured, ratio) {
    const u = this.material.uniforms;
    u.scale.value = scale;
    u.most.value = this.most;
    u.coloured.value = coloured;
    this.renderer.setPixelRatio(ratio);
    this.renderer.setSize(camera.width, camera.height, false);
    const [w, h] = [camera.width / 2 / camera.zoom, camera.height / 2 / camera.zoom];
    Object.assign(this.camera, {left: -w, right: w, top: h, bottom: -h, near: 0, far: 20 * reach + 1});
    const away = camera.towards;
    this.camera.position.set(...camera.centre.map((c, i) => c + away[i] * 10 * reach));
    this.camera.up.set(...camera.up);
    this.camera.lookAt(...camera.centre);
    this.camera.updateProjectionMatrix();
    this.renderer.render(this.scene, this.camera);
  }
}
