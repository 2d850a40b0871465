/** Words on the column of water stand clear of each other: each is moved up or down as little as it takes, or left out. */

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const GAP = 1;
const STEPS = 6;

function clash(a: Box, b: Box): boolean {
  return (
    a.x < b.x + b.width - GAP &&
    b.x < a.x + a.width - GAP &&
    a.y < b.y + b.height - GAP &&
    b.y < a.y + a.height - GAP
  );
}

function inside(a: Box, bounds: Box): boolean {
  return a.y >= bounds.y && a.y + a.height <= bounds.y + bounds.height;
}

/**
 * How far each label moves (down positive), in the order of their weight; null for one that finds no room.
 * `solid` are the boxes nothing may stand on. A label that may not move is left out where it clashes.
 * @tested
 */
export function settle(labels: (Box & { fixed?: boolean })[], solid: Box[], bounds: Box): (number | null)[] {
  const placed = [...solid];
  return labels.map((label) => {
    const step = label.height * 0.5;
    const tries = label.fixed
      ? [0]
      : Array.from({ length: 2 * STEPS + 1 }, (_, i) => (i % 2 === 0 ? -1 : 1) * Math.ceil(i / 2) * step);
    for (const by of tries) {
      const at = { ...label, y: label.y + by };
      if (!(label.fixed || inside(at, bounds)) || placed.some((other) => clash(at, other))) continue;
      placed.push(at);
      return by;
    }
    return null;
  });
}

function boxOf(element: Element): Box {
  const { x, y, width, height } = element.getBoundingClientRect();
  return { x, y, width, height };
}

/** Settle the labels (`.halo`) of a drawing as it stands; what is `data-solid` keeps its place. */
function settleIn(svg: SVGSVGElement) {
  const labels = [...svg.querySelectorAll<SVGTextElement>("text.halo")];
  for (const label of labels) {
    label.style.transform = "";
    label.style.visibility = "";
  }
  const solid = [...svg.querySelectorAll("[data-solid]")].map(boxOf);
  const boxes = labels.map((label) => ({ ...boxOf(label), fixed: label.hasAttribute("transform") }));
  settle(boxes, solid, boxOf(svg)).forEach((by, i) => {
    const label = labels[i];
    if (!label) return;
    if (by === null) label.style.visibility = "hidden";
    else if (by !== 0) label.style.transform = `translateY(${by.toFixed(1)}px)`;
  });
}

/** Settle now and whenever anything of the drawing is another; returns the way to stop. */
export function keepSettled(svg: SVGSVGElement): () => void {
  let asked = 0;
  const again = () => {
    cancelAnimationFrame(asked);
    asked = requestAnimationFrame(() => settleIn(svg));
  };
  settleIn(svg);
  // Our own moves are styles; they are not watched.
  const watcher = new MutationObserver(again);
  watcher.observe(svg, {
    subtree: true,
    childList: true,
    characterData: true,
    attributes: true,
    attributeFilter: ["x", "y", "d", "transform", "width", "height", "cx", "cy"],
  });
  void document.fonts?.ready.then(again);
  return () => {
    watcher.disconnect();
    cancelAnimationFrame(asked);
  };
}
