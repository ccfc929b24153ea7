// The page of `corvex view`, as its readers use it.
import assert from 'node:assert/strict';
import http from 'node:http';
import {readFileSync} from 'node:fs';
import {createRequire} from 'node:module';
import {after, before, test} from 'node:test';
import {Folder, browser, choose, example, open, painted, readout, server, spot, stopAll, withoutWebGL} from './support.mjs';

let chromium;
const folder = new Folder();
before(async () => {
  chromium = await browser();
});
after(async () => {
  await stopAll();
  await chromium.close();
  folder.remove();
});

const names = ['conveyor-trestle', 'walkway-beam', 'press-frame', 'agitator-bracket', 'pipe-rack', 'tank-skid'];
function written(name) {
  const model = folder.write(`${name}.yaml`, example(name));
  folder.run('view', model, '-o', folder.file(`${name}.html`));
  return {model, page: folder.file(`${name}.html`)};
}

// The rows of `trace` at one place, for example {symbol: value of each side}.
function traced(model, member, load, at) {
  const csv = folder.run('trace', model, member, '--case', load, '--at', at, '--format', 'csv', '--digits', '4');
  const tables = csv.replaceAll('\r', '').trim().split(/\n\n+/).map((t) => t.split('\n').map((l) => l.split(',')).filter((row) => row.length > 2));
  const out = {};
  for (const [head, ...rows] of tables) head.forEach((h, c) => (out[h.replace(/ \[.*/, '')] = rows.map((r) => r[c])));
  return out;
}

test('values at the pointer are those of trace', async () => {
  let compared = 0;
  for (const name of names) {
    const {model, page: file} = written(name);
    const page = await open(chromium, file);
    const cases = await page.evaluate(() => window.corvexPage.model.cases.map((c, i) => [c.name, i, c.assessed]).filter((c) => c[2]));
    for (const [load, index] of cases.slice(0, 2)) {
      await choose(page, 'case', String(index));
      // By keys, so that members that hide each other are reached too; every second member, at a place of its own.
      const places = await page.evaluate(() => {
        const app = window.corvexPage;
        return app.model.members.map((_, i) => i).filter((i) => i % 2 === 0).map((i) => {
          app.place = null;
          app.step((s) => s.stepMember(i + 1));
          for (let step = 0; step < (i % 3) * 7; ++step) app.step((s) => s.stepPlace(1));
          return {member: app.model.members[i].name, at: `${app.place.at} m`, ...window.readoutOfPage()};
        });
      });
      for (const {member, at, heading, lines} of places) {
        assert.ok(heading.startsWith(`${member} at `), heading);
        const there = traced(model, member, load, at);
        for (const [symbol, words] of Object.entries(lines)) {
          assert.ok(there[symbol], `${symbol} in ${Object.keys(there)}`);
          const shown = words.map((w) => w.replace(/ .*/, ''));
          // What jumps is told on both sides.
          const wanted = [...new Set(there[symbol])];
          for (const w of wanted) {
            const near = shown.some((s) => s === w || Math.abs(Number(s) - Number(w)) <= 1e-3 * Math.abs(Number(w)) || (Math.abs(Number(w)) < 1e-6 && Math.abs(Number(s)) < 1e-6) || (s === '–' && w === ''));
            assert.ok(near, `${name} ${member} ${load} ${at} ${symbol}: ${shown} on the page, ${wanted} by trace`);
          }
          compared += wanted.length;
        }
      }
    }
    assert.deepEqual(page.faults, []);
    await page.close();
  }
  assert.ok(compared > 500, `${compared} values`);
});

test('the pointer finds the member under it, and a click opens it', async () => {
  const page = await open(chromium, written('conveyor-trestle').page);
  await choose(page, 'what', 'none');
  const [x, y] = await spot(page, 'rail', 0.5);
  await page.mouse.move(x - 3, y);
  await page.mouse.move(x, y);
  let told = await readout(page);
  assert.equal(told.heading, 'rail at 1200 mm (C)');
  // Both sides of the jump.
  assert.deepEqual(told.lines.Vy, ['1.600', '-1.600 kN']);
  assert.deepEqual(told.lines.Mz, ['1.458 kN·m']);
  await page.mouse.click(x, y);
  assert.equal(await page.$eval('#panel h2', (h) => h.textContent), 'rail');
  assert.match(await page.$eval('#panel', (p) => p.textContent), /1\.458 at 1200/);
  // Away from all members nothing is told.
  await page.mouse.move(x, y + 120);
  told = await readout(page);
  assert.equal(told.heading, '');
  await page.close();
});

test('case, envelope and variant can be switched', async () => {
  const {model, page: file} = written('conveyor-trestle');
  const page = await open(chromium, file);
  const cases = await page.$$eval('#case option', (all) => all.map((o) => [o.value, o.textContent]));
  const push = cases.find((c) => c[1] === 'push')[0];
  const rail = () => page.evaluate(() => {
    const app = window.corvexPage;
    app.place = {member: app.model.members.findIndex((m) => m.name === 'rail'), at: 1.2};
    app.showPlace();
  }).then(() => readout(page));
  await choose(page, 'case', push);
  const pushed = await rail();
  assert.equal(pushed.lines.Vy[0].split(' ')[0], traced(model, 'rail', 'push', 'C').Vy[0]);
  await choose(page, 'case', 'envelope');
  const envelope = await rail();
  assert.equal(envelope.lines['Mz max'][0], '1.458 kN·m (product)');
  await page.select('#variant', 'aluminium');
  await painted(page);
  await choose(page, 'case', cases.find((c) => c[1] === 'product')[0]);
  const light = await rail();
  const wanted = folder.run('trace', model, 'rail', '--case', 'product', '--at', 'C', '--variant', 'aluminium', '--format', 'csv', '--digits', '4');
  assert.ok(wanted.includes(light.lines.y[0].split(' ')[0]), light.lines.y[0]);
  assert.notEqual(light.lines.y[0], '-3.549 mm');
  await page.close();
});

test('a saved file is shown, an error with its line, and the last good picture stays', async () => {
  const text = example('conveyor-trestle');
  const model = folder.write('followed.yaml', text);
  const served = await server(model);
  const page = await open(chromium, served.address);
  const most = () => page.evaluate(() => window.corvexPage.rendering.mostMoved);
  const first = await most();
  folder.write('followed.yaml', text.replace('load: 3.2 kN', 'load: 6.4 kN'));
  await page.waitForFunction((v) => window.corvexPage.version > v, {}, await page.evaluate(() => window.corvexPage.version));
  await painted(page);
  const second = await most();
  assert.ok(second > 1.5 * first, `${first} ${second}`);

  const wrong = text.replace(/(through: \[B, C, D\], section: )rail/, '$1rial');
  assert.notEqual(wrong, text);
  const line = wrong.split('\n').findIndex((l) => l.includes('section: rial')) + 1;
  folder.write('followed.yaml', wrong);
  await page.waitForSelector('#problems:not([hidden])');
  const said = await page.$eval('#problems', (p) => p.textContent);
  assert.match(said, new RegExp(`line ${line}: error: .*rial`));
  assert.match(said, /did you mean 'rail'/);
  assert.equal(await most(), second);
  assert.match(await page.$eval('#title', (t) => t.textContent), /trestle/);

  folder.write('followed.yaml', text);
  await page.waitForSelector('#problems', {hidden: true});
  await page.waitForFunction((v) => Math.abs(window.corvexPage.rendering.mostMoved - v) < 1e-9, {}, first);
  // Stresses come after the picture, and variants when they are asked for.
  await page.waitForFunction(() => window.corvexPage.load().stress);
  const rail = () => page.evaluate(() => {
    const app = window.corvexPage;
    app.place = {member: app.model.members.findIndex((m) => m.name === 'rail'), at: 1.2};
    app.showPlace();
  }).then(() => readout(page));
  assert.deepEqual((await rail()).lines['von Mises'], ['83.93 MPa']);
  await page.select('#variant', 'aluminium');
  await page.waitForFunction((v) => window.corvexPage.model.variant === 'aluminium' && window.corvexPage.rendering.mostMoved > 2 * v, {}, first);
  assert.notDeepEqual((await rail()).lines.y, ['-3.549 mm']);
  // A file that changes meanwhile is shown in the variant that is looked at.
  folder.write('followed.yaml', text.replace('load: 3.2 kN', 'load: 1.6 kN'));
  await page.waitForFunction((v) => window.corvexPage.rendering.mostMoved < 2 * v && window.corvexPage.model.variant === 'aluminium', {}, first);
  // Nothing but the page and its server was asked for anything.
  for (const url of page.asked) assert.ok(url.startsWith(served.address), url);
  assert.deepEqual(page.faults, []);
  await page.close();
  assert.equal(await served.stop(), 0);
});

test('a served page has the units that are asked for', async () => {
  const served = await server(folder.write('units.yaml', example('walkway-beam')), '--units', 'mm, N');
  const page = await open(chromium, served.address);
  assert.deepEqual(await page.evaluate(() => window.corvexPage.model.units.force[0]), 'N');
  await page.close();
  await served.stop();
});

test('the server answers this machine, this page and its token alone', async () => {
  const served = await server(folder.write('alone.yaml', example('walkway-beam')));
  const {port, pathname, hostname} = new URL(served.address);
  assert.equal(hostname, '127.0.0.1');
  const status = (path, headers = {}) => new Promise((resolve, reject) => {
    http.get({host: '127.0.0.1', port, path, headers}, (r) => {
      r.resume();
      resolve(r.statusCode);
    }).on('error', reject);
  });
  assert.equal(await status(pathname), 200);
  assert.equal(await status(`${pathname}model`), 200);
  assert.equal(await status('/'), 404);
  assert.equal(await status('/model'), 404);
  assert.equal(await status(`/${'0'.repeat(32)}/model`), 404);
  assert.equal(await status(`${pathname}../model`), 404);
  assert.equal(await status(`${pathname}model`, {Host: 'evil.example'}), 403);
  assert.equal(await status(`${pathname}model`, {Host: `evil.example:${port}`}), 403);
  assert.equal(await status(`${pathname}model`, {Origin: 'http://evil.example'}), 403);
  assert.equal(await status(`${pathname}model`, {Origin: 'null'}), 403);
  assert.equal(await status(`${pathname}model`, {Origin: `http://127.0.0.1:${port}`}), 200);
  assert.equal(await status(`${pathname}case?index=99999999999999999999`), 200);
  assert.equal(await status(`${pathname}case?index=-1`), 200);
  assert.equal(await served.stop('SIGTERM'), 0);
});

test('a name with markup is text, and no script of a model runs', async () => {
  const evil = '<img src=x onerror=window.bad=1></script><script>window.bad=1</script>';
  const text = example('walkway-beam')
    .replace(/^title: .*$/m, `title: "{{data}} ${evil}"`)
    .replaceAll(/\bbeam\b(?=:)/g, `"${evil}"`);
  const named = text.replace(/on: beam\b/g, `on: "${evil}"`);
  const model = folder.write('evil.yaml', `corvex: 1
title: "{{data}} ${evil}"
units: {length: m, force: kN}
points: {A: [0, 0], "${evil}": [2, 0]}
members: {"b${evil}": {through: [A, "${evil}"], section: SHS 60x60x4, material: S235}}
supports: {A: fixed}
loads: {"c${evil}": [{at: "${evil}", force: {down: 1}}]}
`);
  assert.ok(named);
  folder.run('view', model, '-o', folder.file('evil.html'));
  const served = await server(model);
  for (const address of [folder.file('evil.html'), served.address]) {
    const page = await open(chromium, address);
    for (const tab of ['summary', 'results', 'member', 'findings', 'limits', 'hand']) await page.click(`#tab-${tab}`);
    await page.evaluate(() => window.corvexPage.choose(window.corvexPage.model.members[0].name));
    assert.equal(await page.evaluate(() => window.bad), undefined);
    assert.equal(await page.$eval('#title', (t) => t.textContent), `{{data}} ${evil}`);
    assert.equal((await page.$$('img')).length, 0);
    assert.deepEqual(page.faults, []);
    await page.close();
  }
  await served.stop();
});

test('the page of a file asks nobody for anything', async () => {
  const page = await open(chromium, written('tank-skid').page);
  await page.click('#solid');
  await choose(page, 'what', 'stress');
  assert.deepEqual(page.asked.filter((u) => !u.startsWith('file://')), []);
  await page.close();
});

test('axe finds no serious fault, in light and dark, in any part', async () => {
  const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
  for (const name of ['conveyor-trestle', 'tank-skid']) {
    const page = await open(chromium, written(name).page);
    await page.setBypassCSP(true);
    await page.reload();
    await painted(page);
    await page.evaluate(axe);
    for (const dark of [false, true]) {
      await page.evaluate((d) => window.corvexPage.setDark(d), dark);
      for (const tab of ['summary', 'results', 'member', 'findings', 'limits', 'hand']) {
        await page.click(`#tab-${tab}`);
        if (tab === 'member') await page.evaluate(() => window.corvexPage.choose(window.corvexPage.model.members[0].name));
        const found = await page.evaluate(() => window.axe.run());
        const serious = found.violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
        assert.deepEqual(serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.html).join(' | ').slice(0, 300)}`), [], `${name} ${tab} ${dark ? 'dark' : 'light'}`);
      }
    }
    await page.close();
  }
});

test('everything can be done by keys', async () => {
  const page = await open(chromium, written('tank-skid').page);
  await page.focus('#plot');
  const state = () => page.evaluate(() => {
    const {place, chosen, rendering: {camera, moving}} = window.corvexPage;
    return {right: camera.right, zoom: camera.zoom, centre: camera.centre, place, chosen, moving};
  });
  const first = await state();
  await page.keyboard.press('ArrowRight');
  assert.notDeepEqual((await state()).right, first.right);
  await page.keyboard.press('1');
  assert.deepEqual((await state()).right, [1, 0, 0]);
  const fitted = await state();
  await page.keyboard.press('+');
  assert.ok((await state()).zoom > fitted.zoom);
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.up('Shift');
  assert.notDeepEqual((await state()).centre, fitted.centre);
  await page.keyboard.press('f');
  assert.ok(Math.abs((await state()).zoom - fitted.zoom) < 1e-9);
  await page.keyboard.press('m');
  const at = (await state()).place;
  assert.equal(at.member, 0);
  await page.keyboard.press('.');
  assert.ok((await state()).place.at > at.at);
  await page.keyboard.press(',');
  assert.equal((await state()).place.at, at.at);
  await page.keyboard.press('Enter');
  assert.ok((await state()).chosen);
  await page.keyboard.press('Space');
  assert.equal((await state()).moving, true);
  await page.keyboard.press('Space');
  await page.keyboard.press('Escape');
  assert.equal((await state()).place, null);
  await page.close();
});

test('tables sort, and their names mark what they name', async () => {
  const page = await open(chromium, written('tank-skid').page);
  await page.click('#tab-results');
  const column = (title, c) => page.evaluate((t, k) => {
    const h3 = [...document.querySelectorAll('#panel h3')].find((h) => h.textContent.startsWith(t));
    return [...h3.parentElement.querySelectorAll('tbody tr:not(.beneath)')].map((tr) => tr.children[k].textContent);
  }, title, c);
  await page.evaluate(() => {
    const h3 = [...document.querySelectorAll('#panel h3')].find((h) => h.textContent.startsWith('Displacements'));
    h3.parentElement.querySelectorAll('thead button')[3].click();
  });
  const sorted = (await column('Displacements', 3)).map(Number);
  assert.deepEqual(sorted, [...sorted].sort((a, b) => a - b));
  assert.ok(sorted.length > 8);
  await page.evaluate(() => [...document.querySelectorAll('#panel td button')].find((b) => b.textContent === 'r2').click());
  assert.equal(await page.evaluate(() => window.corvexPage.chosen), 'r2');
  await page.close();
});

test('very many members are drawn whole when they stand still, and their shape alone while they move', async () => {
  const out = ['units: {length: m, force: kN}', 'points:'];
  const n = 220;
  for (let i = 0; i <= n; ++i) out.push(`  a${i}: [${i}, 0]`, `  b${i}: [${i}, 1]`);
  out.push('members:');
  for (let i = 0; i < n; ++i) out.push(`  l${i}: {through: [a${i}, a${i + 1}], section: SHS 60x60x4, material: S235}`, `  u${i}: {through: [a${i}, b${i + 1}], section: SHS 60x60x4, material: S235}`);
  out.push(`  v: {through: [b0, b1], section: SHS 60x60x4, material: S235}`, 'supports: {b0: fixed}');
  for (let i = 0; i <= n; i += 10) out[out.length - 1] = out.at(-1).replace('}', `, a${i}: pinned}`);
  out.push('loads: {load: [{at: a5, force: {down: 1}}]}');
  const model = folder.write('many.yaml', out.join('\n') + '\n');
  const served = await server(model);
  const page = await open(chromium, served.address);
  const inked = () => page.evaluate(() => {
    window.corvexPage.rendering.paint();
    const canvas = document.getElementById('plot');
    const {data} = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height);
    let any = 0;
    for (let i = 3; i < data.length; i += 4) if (data[i] > 0) ++any;
    return any;
  });
  // When nothing more comes.
  await page.waitForFunction(() => window.corvexPage.load().stress);
  const still = await inked();
  await page.evaluate(() => { window.corvexPage.rendering.turning = true; });
  const turning = await inked();
  assert.ok(turning > 100 && turning < still, `${turning} of ${still}`);
  await page.evaluate(() => { window.corvexPage.rendering.turning = false; });
  const again = await inked();
  // The browser smooths lines otherwise after their pixels have been read once.
  assert.ok(Math.abs(again - still) <= 0.1 * still, `${again} of ${still}, ${turning} while it turns`);
  assert.deepEqual(page.faults, []);
  await page.close();
  await served.stop();
});

test('true scale, the scale of displacements and motion', async () => {
  const page = await open(chromium, written('conveyor-trestle').page);
  const moved = () => page.evaluate(() => {
    const app = window.corvexPage;
    app.rendering.paint();
    const at = app.rendering.spotAt({member: 1, at: 1.2});
    const rest = app.rendering.camera.project([1.2, 0.9, 0]);
    return (at[1] - rest[1]) / app.rendering.camera.zoom;
  });
  const scale = await page.evaluate(() => window.corvexPage.rendering.scale());
  assert.ok(scale > 5);
  assert.ok(Math.abs((await moved()) - scale * 3.549e-3) < 1e-5);
  await page.click('#true-scale');
  assert.ok(Math.abs((await moved()) - 3.549e-3) < 1e-6);
  await page.click('#true-scale');
  await page.click('#motion');
  // However few pictures the browser draws in a second, each is of another phase.
  const phases = await page.evaluate(() => new Promise((done) => {
    const seen = new Set();
    const look = () => {
      seen.add(window.corvexPage.rendering.phase);
      if (seen.size > 3) done([...seen]);
      else setTimeout(look, 10);
    };
    look();
  }));
  assert.ok(phases.every((phase) => Math.abs(phase) <= 1), String(phases));
  await page.close();
});

test('the shapes of modes are shown and move', async () => {
  const source = example('../stability/slender-prop').replace('modes: {', 'modes: {vibration: 2, ');
  folder.run('view', folder.write('modes.yaml', source), '-o', folder.file('modes.html'));
  const page = await open(chromium, folder.file('modes.html'));
  const names = await page.$$eval('#modes option', (all) => all.map((o) => [o.value, o.textContent]));
  const told = JSON.parse(folder.run('modes', folder.file('modes.yaml'), '--json'));
  assert.deepEqual(names.map(([value]) => value), ['mode-0', 'mode-1', 'mode-2', 'mode-3']);
  for (const [i, m] of told.vibration.entries()) assert.equal(names[i][1], `vibration ${i + 1}: ${m.frequency.toPrecision(4)} Hz`);
  assert.match(names[2][1], /^buckling 1: load factor 3\.35/);
  // The prop bends in a half wave of Euler, by a tenth of the structure in the middle.
  await choose(page, 'what', 'mode-2');
  const bent = () => page.evaluate(() => {
    const app = window.corvexPage;
    app.rendering.paint();
    const prop = app.model.members.findIndex((m) => m.name === 'prop');
    return [0.25, 0.5].map((share) => {
      const at = app.rendering.spotAt({member: prop, at: share * app.model.members[prop].length});
      const rest = app.rendering.camera.project([0, share * 3.2, 0]);
      return (at[0] - rest[0]) / app.rendering.camera.zoom / app.rendering.reach;
    });
  });
  const [quarter, half] = await bent();
  assert.ok(Math.abs(Math.abs(half) - 0.1) < 1e-3, String(half));
  assert.ok(Math.abs(quarter / half - Math.SQRT1_2) < 1e-3, `${quarter} of ${half}`);
  assert.match(await page.$eval('#summary', (p) => p.textContent), /buckling 1: load factor 3\.35.*amplitude/);
  assert.ok(await page.$eval('#scale', (e) => e.disabled));
  await page.click('#motion');
  await page.waitForFunction((at) => {
    const app = window.corvexPage;
    const prop = app.model.members.findIndex((m) => m.name === 'prop');
    const [x] = app.rendering.spotAt({member: prop, at: 1.6});
    return Math.sign(x - app.rendering.camera.project([0, 1.6, 0])[0]) === -Math.sign(at);
  }, {}, half);
  await choose(page, 'what', 'deformed');
  assert.ok(!(await page.$eval('#scale', (e) => e.disabled)));
  assert.deepEqual(page.faults, []);
  await page.close();
});

test('solid profiles are drawn, moved and coloured; without WebGL lines are', async () => {
  const file = written('tank-skid').page;
  const page = await open(chromium, file);
  await page.click('#solid');
  await choose(page, 'what', 'stress');
  const colours = (p) => p.evaluate(() => {
    const canvas = document.getElementById('solids');
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [canvas.width, canvas.height];
    const c = copy.getContext('2d');
    c.drawImage(canvas, 0, 0);
    const {data} = c.getImageData(0, 0, copy.width, copy.height);
    let [pulled, pressed] = [0, 0];
    for (let i = 0; i < data.length; i += 4) {
      if (data[i + 3] < 128) continue;
      if (data[i + 2] > data[i] + 40) ++pulled;
      if (data[i] > data[i + 2] + 40) ++pressed;
    }
    return [pulled, pressed];
  });
  const [pulled, pressed] = await colours(page);
  assert.ok(pulled > 500 && pressed > 500, `${pulled} ${pressed}`);
  // The largest stress of a face is that of the tables.
  const most = await page.evaluate(() => window.corvexPage.rendering.solids.most);
  const worst = await page.evaluate(() => Math.max(...window.corvexPage.load().stress.members.flatMap((places) => places.flatMap((p) => [p[0], -p[1]]))));
  assert.ok(Math.abs(most - worst) < 0.03 * worst, `${most} ${worst}`);
  assert.deepEqual(page.faults, []);
  await page.close();

  const plain = await browser(withoutWebGL);
  const lines = await open(plain, file);
  await lines.click('#solid');
  await choose(lines, 'what', 'stress');
  assert.match(await lines.$eval('#summary', (p) => p.textContent), /needs WebGL/);
  const drawn = await lines.evaluate(() => {
    const canvas = document.getElementById('plot');
    const {data} = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height);
    let any = 0;
    for (let i = 3; i < data.length; i += 4) if (data[i] > 0) ++any;
    return any;
  });
  assert.ok(drawn > 3000, String(drawn));
  await plain.close();
});

test('the page prints, and the words of it grow with the reader\'s letters', async () => {
  const page = await open(chromium, written('conveyor-trestle').page);
  await page.click('#tab-results');
  const pdf = await page.pdf({format: 'A4'});
  assert.ok(pdf.length > 10000);
  const size = () => page.$eval('#panel', (p) => parseFloat(getComputedStyle(p).fontSize));
  const before = await size();
  await page.evaluate(() => { document.documentElement.style.fontSize = '28px'; });
  assert.ok((await size()) > 1.5 * before);
  await page.close();
});
