// Pointer, wheel and keys on the picture.
const $ = (id) => document.getElementById(id);

function wirePointer(app, plot) {
  const {rendering} = app;
  const {camera} = rendering;
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
      rendering.turning = true;
      if (drag.moves) camera.move(dx, dy);
      else camera.turn(dx * 0.008, dy * 0.008, app.model.up);
      [drag.x, drag.y] = [e.offsetX, e.offsetY];
      return rendering.draw();
    }
    app.place = rendering.spots ? rendering.pick(e.offsetX, e.offsetY) : null;
    app.controls.showPlace(e.offsetX, e.offsetY);
    rendering.draw();
  });
  plot.addEventListener('pointerup', (e) => {
    const clicked = drag && !drag.far;
    drag = null;
    rendering.turning = false;
    rendering.draw();
    if (!clicked || !app.model) return;
    const found = rendering.pick(e.offsetX, e.offsetY);
    if (found) app.choose(app.model.members[found.member].name);
  });
  plot.addEventListener('contextmenu', (e) => e.preventDefault());
  plot.addEventListener('wheel', (e) => {
    e.preventDefault();
    camera.zoomAt(Math.exp(-e.deltaY * 0.0015), e.offsetX, e.offsetY);
    rendering.draw();
  }, {passive: false});
}

// Action of each key.
function actions(app, shift) {
  const step = 0.09;
  const {camera} = app.rendering;
  const [w, h] = [camera.width / 2, camera.height / 2];
  const {up} = app.model;
  return {
    ArrowLeft: () => (shift ? camera.move(-30, 0) : camera.turn(-step, 0, up)),
    ArrowRight: () => (shift ? camera.move(30, 0) : camera.turn(step, 0, up)),
    ArrowUp: () => (shift ? camera.move(0, -30) : camera.turn(0, -step, up)),
    ArrowDown: () => (shift ? camera.move(0, 30) : camera.turn(0, step, up)),
    '+': () => camera.zoomAt(1.25, w, h),
    '-': () => camera.zoomAt(0.8, w, h),
    f: () => app.rendering.fit(),
    1: () => app.view('front'),
    2: () => app.view('side'),
    3: () => app.view('top'),
    4: () => app.view('space'),
    m: () => app.step((state) => state.stepMember(1)),
    M: () => app.step((state) => state.stepMember(-1)),
    '.': () => app.step((state) => state.stepPlace(1)),
    ',': () => app.step((state) => state.stepPlace(-1)),
    ' ': () => app.toggleMotion(),
    Enter: () => app.place && app.choose(app.model.members[app.place.member].name),
    Escape: () => app.chooseNothing(),
  };
}

export function wirePicture(app) {
  const plot = $('plot');
  wirePointer(app, plot);
  plot.addEventListener('keydown', (e) => {
    if (!app.model) return;
    const act = actions(app, e.shiftKey)[e.key];
    if (!act || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    act();
    app.rendering.draw();
  });
}
