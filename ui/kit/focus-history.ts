/** Where the focus has been lately, so that it can come back when what took it is gone. */

const KEPT = 12;
const places: HTMLElement[] = [];

if (typeof document !== 'undefined')
  document.addEventListener('focusin', ({ target }) => {
    if (!(target instanceof HTMLElement)) return;
    places.push(target);
    if (places.length > KEPT) places.shift();
  });

/** The button that a menu hangs from, of something in the menu: also when the menu itself is gone. */
function menuButton(place: HTMLElement): HTMLElement | null {
  const label = place.closest('[role=menu]')?.getAttribute('aria-labelledby');
  return label ? document.getElementById(label) : null;
}

/** Where one goes back to from a place: none from within a dialog, or from what is not there any more. */
function wayBack(place: HTMLElement): HTMLElement | null {
  if (place.closest('[role=menu]')) return menuButton(place);
  return place.isConnected && !place.closest('[role=dialog]') ? place : null;
}

/** Brings the focus back to the last place outside of dialogs that is still there; whether there was one. */
export function focusBack(): boolean {
  for (const place of places.slice().reverse()) {
    const back = wayBack(place);
    if (!back) continue;
    back.focus();
    return true;
  }
  return false;
}
