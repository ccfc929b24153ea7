// The bar above the picture, the panel next to it, the readout at a place and the list of problems.
import {shortNumber} from './format.js';
import {element, findingsPanel, handPanel, limitsPanel, memberPanel, resultsPanel, summaryPanel} from './panels.js';

const $ = (id) => document.getElementById(id);
const panels = {summary: ['Summary', summaryPanel], results: ['Results', resultsPanel], member: ['Member', memberPanel], findings: ['Findings', findingsPanel], limits: ['Limits', limitsPanel], hand: ['Hand calculation', handPanel]};

export class Controls {
  constructor(app) {
    this.app = app;
    this.panel = 'summary';
  }

  // The state has another model.
  fill() {
    const {app} = this;
    const m = app.model;
    document.title = m.title;
    $('title').textContent = m.title;
    const choose = $('case');
    choose.replaceChildren();
    m.cases.forEach((c, i) => choose.append(element('option', {value: String(i)}, c.assessed ? c.name : `${c.name} (load case)`)));
    if (app.assessed().length > 1) choose.append(element('option', {value: 'envelope'}, `envelope of ${app.assessed().length}`));
    choose.value = String(app.index);
    const variants = $('variant');
    variants.replaceChildren(element('option', {value: ''}, m.first ?? 'original'), ...m.variants.map((v) => element('option', {value: v}, v)));
    variants.value = app.variant;
    $('variant-label').hidden = m.variants.length === 0;
    $('variant-label').firstChild.textContent = m.first ? 'Model ' : 'Variant ';
  }

  // Shapes of modes are those of the case that is shown.
  fillModes() {
    const group = $('modes');
    const chosen = $('what').value;
    const modes = this.app.isEnvelope() ? [] : this.app.load()?.modes ?? [];
    group.hidden = modes.length === 0;
    group.replaceChildren(...modes.map((m, i) => element('option', {value: `mode-${i}`}, m.name)));
    $('what').value = chosen.startsWith('mode-') && !modes[chosen.slice(5)] ? 'deformed' : chosen;
    $('case').value = String(this.app.index);
  }

  showProblems(problems) {
    const box = $('problems');
    box.hidden = problems.length === 0;
    box.replaceChildren(...problems.map((p) => element('div', {}, `${p.line ? `line ${p.line}: ` : ''}${p.severity}: ${p.text}${p.remedy ? ` (${p.remedy})` : ''}`)));
    if (problems.length && this.app.model) box.append(element('div', {}, 'The last model that could be solved is shown.'));
  }

  showPanel(name = this.panel) {
    this.panel = name;
    const tabs = $('tabs');
    tabs.replaceChildren(...Object.entries(panels).map(([key, [title]]) => element('button', {
      type: 'button', role: 'tab', id: `tab-${key}`, 'aria-selected': key === name ? 'true' : 'false', 'aria-controls': 'panel', tabindex: key === name ? 0 : -1,
      onclick: () => this.showPanel(key),
    }, title)));
    $('panel').setAttribute('aria-labelledby', `tab-${name}`);
    $('panel').replaceChildren(...panels[name][1](this.app));
  }

  // The values at the chosen place, next to the spot (x, y) or next to the place itself.
  showPlace(x, y) {
    const {app} = this;
    const box = $('readout');
    if (!app.place || !app.load()) return box.replaceChildren();
    const {model, place} = app;
    const m = model.members[place.member];
    const at = m.through.find(([, a]) => Math.abs(a - place.at) <= 1e-9 * m.length);
    const where = `${shortNumber(place.at / model.units.length[1], 6)} ${model.units.length[0]}${at ? ` (${model.points[at[0]].name})` : ''}`;
    const rows = app.valuesAt(place).map(([name, words]) => element('tr', {}, element('th', {scope: 'row'}, name), ...words.map((w) => element('td', {}, w))));
    box.replaceChildren(element('strong', {}, `${m.name} at ${where}`), element('table', {}, element('tbody', {}, ...rows)));
    const {camera} = app.rendering;
    const spot = x === undefined ? app.rendering.spotAt(place) : [x, y];
    const [w, h] = [box.offsetWidth, box.offsetHeight];
    box.style.left = `${spot[0] + 24 + w > camera.width ? Math.max(spot[0] - w - 24, 4) : spot[0] + 24}px`;
    box.style.top = `${Math.min(Math.max(spot[1] - h / 2, 4), Math.max(camera.height - h - 4, 4))}px`;
  }

  wire() {
    const {app} = this;
    const {rendering} = app;
    $('case').addEventListener('change', (e) => app.setCase(e.target.value));
    $('variant').addEventListener('change', (e) => app.setVariant(e.target.value));
    for (const id of ['what', 'solid', 'loads', 'reactions', 'names']) $(id).addEventListener('change', () => rendering.draw());
    // From true scale at the left over the automatic one in the middle to a hundred times that.
    $('scale').addEventListener('input', (e) => {
      const share = Number(e.target.value) / 50 - 1;
      const auto = rendering.automatic();
      rendering.scaleOf = share === 0 ? 'auto' : share < 0 ? auto ** (1 + share) : auto * 100 ** share;
      $('true-scale').setAttribute('aria-pressed', String(rendering.scale() === 1));
      rendering.draw();
    });
    $('true-scale').addEventListener('click', () => {
      rendering.scaleOf = rendering.scaleOf === 1 ? 'auto' : 1;
      $('scale').value = rendering.scaleOf === 1 ? 0 : 50;
      $('true-scale').setAttribute('aria-pressed', String(rendering.scaleOf === 1));
      rendering.draw();
    });
    $('motion').addEventListener('click', () => app.toggleMotion());
    $('dark').addEventListener('click', () => app.setDark(!rendering.dark));
    $('keys-button').addEventListener('click', () => $('keys').showModal());
    $('fit').addEventListener('click', () => rendering.fit());
    for (const b of document.querySelectorAll('[data-view]')) b.addEventListener('click', () => app.view(b.dataset.view));
    $('tabs').addEventListener('keydown', (e) => {
      const names = Object.keys(panels);
      const i = names.indexOf(this.panel);
      const to = e.key === 'ArrowRight' ? i + 1 : e.key === 'ArrowLeft' ? i - 1 : -1;
      if (to < 0 || to >= names.length) return;
      this.showPanel(names[to]);
      $(`tab-${this.panel}`).focus();
    });
    new ResizeObserver(() => {
      rendering.measure();
      rendering.draw();
    }).observe($('stage'));
  }
}
