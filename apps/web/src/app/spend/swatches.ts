/** How parts of a chart are told apart: by colour, and without it by their hatching. */
export interface Swatch {
  readonly colour: string;
  readonly hatch: 'plain' | 'rising' | 'dots' | 'level' | 'falling';
}

/** In the order of the parts. */
export const SWATCHES: readonly Swatch[] = [
  { colour: '#0072b2', hatch: 'plain' },
  { colour: '#009e73', hatch: 'rising' },
  { colour: '#e69f00', hatch: 'dots' },
  { colour: '#cc79a7', hatch: 'level' },
  { colour: '#5c6a72', hatch: 'falling' },
];

/** Pixels of one tile of a hatching. */
const TILE = 8;

const LINES: Readonly<Record<Swatch['hatch'], readonly (readonly [number, number, number, number])[]>> = {
  plain: [],
  dots: [],
  rising: [
    [0, TILE, TILE, 0],
    [-1, 1, 1, -1],
    [TILE - 1, TILE + 1, TILE + 1, TILE - 1],
  ],
  falling: [
    [0, 0, TILE, TILE],
    [-1, TILE - 1, 1, TILE + 1],
    [TILE - 1, -1, TILE + 1, 1],
  ],
  level: [[0, TILE / 2, TILE, TILE / 2]],
};

/** The swatch as a canvas fills with it. */
export function hatchOf(canvas: HTMLCanvasElement, { colour, hatch }: Swatch): CanvasPattern | string {
  const tile = drawTile(colour, hatch);
  return canvas.getContext('2d')?.createPattern(tile, 'repeat') ?? colour;
}

function drawTile(colour: string, hatch: Swatch['hatch']): HTMLCanvasElement {
  const tile = document.createElement('canvas');
  tile.width = tile.height = TILE;
  const context = tile.getContext('2d');
  if (!context) return tile;
  context.fillStyle = colour;
  context.fillRect(0, 0, TILE, TILE);
  context.strokeStyle = context.fillStyle = 'rgb(255 255 255 / 55%)';
  context.lineWidth = 1.5;
  for (const [x, y, toX, toY] of LINES[hatch]) {
    context.beginPath();
    context.moveTo(x, y);
    context.lineTo(toX, toY);
    context.stroke();
  }
  if (hatch === 'dots') {
    context.beginPath();
    context.arc(TILE / 2, TILE / 2, 1.6, 0, 2 * Math.PI);
    context.fill();
  }
  return tile;
}

/** The same beside its name, as CSS writes it. */
export function swatchStyle({ colour, hatch }: Swatch): string {
  const lines = 'rgb(255 255 255 / 55%)';
  const drawn: Record<Swatch['hatch'], string> = {
    plain: '',
    rising: `repeating-linear-gradient(135deg, transparent 0 3px, ${lines} 3px 4.5px), `,
    falling: `repeating-linear-gradient(45deg, transparent 0 3px, ${lines} 3px 4.5px), `,
    level: `repeating-linear-gradient(0deg, transparent 0 3px, ${lines} 3px 4.5px), `,
    dots: `radial-gradient(circle, ${lines} 1.6px, transparent 1.7px) 0 0 / 6px 6px, `,
  };
  return `${drawn[hatch]}${colour}`;
}
