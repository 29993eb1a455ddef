import { childOf, childrenOf, element, elementsOf, findIn, lettersIn, type XmlNode } from '../office/tree';
import { pointsOf } from './word-section';
import type { Story } from './reading';

/** A picture as the library draws it, and how it stands. */
interface Picture {
  /** Style of its own. */
  readonly place: Readonly<Record<string, string>>;
  readonly drawing: XmlNode;
}

/** What is drawn of a drawing: its pictures, and what is written in its text boxes. */
export interface Drawn {
  readonly pictures: readonly Picture[];
  readonly boxes: XmlNode[][];
}

/** English metric units of a point (ISO/IEC 29500-1, 20.1.10.16). */
const EMU = 12_700;

/** Forms of pictures that a browser draws. */
const DRAWN = /\.(png|jpe?g|jfif|gif|bmp|webp|svg)$/i;

/** What is in a drawing. */
export function drawingOf(node: XmlNode, story: Story): Drawn {
  const [frame] = elementsOf(node).filter(({ name }) => name === 'wp:inline' || name === 'wp:anchor');
  const data = findIn(frame, 'a:graphicData');
  if (!frame || !data) return { pictures: [], boxes: [] };
  const { leftOut } = story.reading;
  const uri = data.attributes['uri'] ?? '';
  if (/chart/i.test(uri)) leftOut.add('chart');
  else if (/diagram/i.test(uri)) leftOut.add('diagram');
  const found = allIn(data, 'pic:pic');
  const shapes = allIn(data, 'wps:wsp');
  const boxes = boxesIn(data, 'wps:txbx');
  if (shapes.length > boxes.length) leftOut.add('shape', shapes.length - boxes.length);
  leftOut.add('box', boxes.length);
  const { cx: across, cy: down } = childOf(frame, 'wp:extent')?.attributes ?? {};
  const own = found.length === 1 ? { across, down } : null;
  const pictures = found.flatMap((picture): Picture[] => {
    const { cx, cy } = findIn(childOf(picture, 'pic:spPr'), 'a:ext')?.attributes ?? {};
    const size = { width: Number(own?.across ?? cx ?? 0) / EMU, height: Number(own?.down ?? cy ?? 0) / EMU };
    const blip = findIn(picture, 'a:blip')?.attributes ?? {};
    const drawing = inlinePicture(picture, blip['r:embed'] ?? blip['r:link'], size, story);
    return drawing ? [{ place: frame.name === 'wp:anchor' ? placeOf(frame, size, story) : {}, drawing }] : [];
  });
  return { pictures, boxes };
}

/** A picture or text box in the older form (ISO/IEC 29500-4, 19.1). */
export function pictOf(node: XmlNode, story: Story): Drawn {
  const { leftOut } = story.reading;
  if (findIn(node, 'v:textpath')) leftOut.add('watermark');
  const boxes = boxesIn(node, 'v:textbox');
  leftOut.add('box', boxes.length);
  const shapes = [...allIn(node, 'v:shape'), ...allIn(node, 'v:rect')];
  const isDrawn = (shape: XmlNode): boolean =>
    elementsOf(shape).some(({ name }) => ['v:imagedata', 'v:textbox', 'v:textpath'].includes(name));
  leftOut.add('shape', shapes.filter((shape) => !isDrawn(shape)).length);
  const pictures = shapes.flatMap((shape): Picture[] => {
    const image = childOf(shape, 'v:imagedata');
    if (!image) return [];
    const style = new Map(
      (shape.attributes['style'] ?? '')
        .split(';')
        .map((one) => one.split(':').map((part) => part.trim()) as [string, string]),
    );
    const size = { width: pointsOf(style.get('width'), 100), height: pointsOf(style.get('height'), 100) };
    const blip = element('pic:blipFill', {}, [element('a:blip', {}, [])]);
    const drawing = inlinePicture(element('pic:pic', {}, [blip]), image.attributes['r:id'], size, story);
    return drawing ? [{ place: {}, drawing }] : [];
  });
  return { pictures, boxes };
}

/** All elements of a name in another, but none within one of them. */
const allIn = (node: XmlNode, name: string): XmlNode[] =>
  elementsOf(node).flatMap((child) => (child.name === name ? [child] : allIn(child, name)));

/** What is written in text boxes; one without a word is only a shape. */
const boxesIn = (node: XmlNode, name: string): XmlNode[][] =>
  allIn(node, name)
    .map((box) => elementsOf(findIn(box, 'w:txbxContent')))
    .filter((content) => content.some((one) => lettersIn(one).trim() !== ''));

interface Size {
  readonly width: number;
  readonly height: number;
}

/** The picture as one that stands in its line; null where there is none that can be drawn. */
function inlinePicture(picture: XmlNode, id: string | undefined, size: Size, { reading, part }: Story): XmlNode | null {
  const relation = part.relations.get(id ?? '');
  if (!relation || relation.isOutside) {
    reading.leftOut.add('missing');
    return null;
  }
  if (!DRAWN.test(relation.target)) {
    reading.leftOut.add('picture');
    return null;
  }
  const known = [...reading.pictures].find(([, target]) => target === relation.target)?.[0];
  const name = known ?? `picture${reading.pictures.size + 1}`;
  reading.pictures.set(name, relation.target);
  const extent = { cx: String(Math.round(size.width * EMU)), cy: String(Math.round(size.height * EMU)) };
  const source = childOf(picture, 'pic:blipFill');
  const crop = childrenOf(source, 'a:srcRect');
  const { attributes: turn = {} } = findIn(childOf(picture, 'pic:spPr'), 'a:xfrm') ?? {};
  const drawn = element('pic:pic', {}, [
    element('pic:blipFill', {}, [element('a:blip', { 'r:embed': name }), ...crop]),
    element('pic:spPr', {}, [
      element('a:xfrm', turn['rot'] === undefined ? {} : { rot: turn['rot'] }, [element('a:ext', extent)]),
    ]),
  ]);
  const graphic = element('a:graphic', {}, [element('a:graphicData', {}, [drawn])]);
  return element('w:drawing', {}, [element('wp:inline', {}, [element('wp:extent', extent), graphic])]);
}

/**
 * How a picture that floats stands (ISO/IEC 29500-1, 20.4.2). In a head it is where it is on the page; in the text it stands
 * beside its paragraph, since a page that flows has no places of its own.
 */
function placeOf(anchor: XmlNode, size: Size, { page, isHead, reading }: Story): Readonly<Record<string, string>> {
  const across = childOf(anchor, 'wp:positionH');
  const down = childOf(anchor, 'wp:positionV');
  const align = lettersIn(childOf(across, 'wp:align') ?? '').trim();
  const offset = Number(lettersIn(childOf(across, 'wp:posOffset') ?? '')) / EMU || 0;
  const drop = Number(lettersIn(childOf(down, 'wp:posOffset') ?? '')) / EMU || 0;
  const isOfPage = across?.attributes['relativeFrom'] === 'page';
  const [from, room] = isOfPage ? [-page.left, page.pageWidth] : [0, page.width];
  const left =
    from + (align === 'right' ? room - size.width : align === 'center' ? (room - size.width) / 2 : align ? 0 : offset);
  const wrap = elementsOf(anchor).find(({ name }) => name.startsWith('wp:wrap'))?.name ?? 'wp:wrapNone';
  const ofParagraph = ['paragraph', 'line'].includes(down?.attributes['relativeFrom'] ?? '');
  if (wrap === 'wp:wrapTopAndBottom') {
    return { display: 'block', margin: `0 0 4pt ${Math.max(0, left).toFixed(1)}pt` };
  }
  if (isHead || (wrap === 'wp:wrapNone' && ofParagraph)) {
    const top = ofParagraph
      ? drop
      : drop - (down?.attributes['relativeFrom'] === 'page' ? page.headAt : page.headAt - page.top);
    return {
      position: 'absolute',
      left: `${left.toFixed(1)}pt`,
      [ofParagraph ? 'margin-top' : 'top']: `${top.toFixed(1)}pt`,
      'z-index': ['1', 'true'].includes(anchor.attributes['behindDoc'] ?? '') ? '-1' : '1',
      // What is set from the head's own corner, or from its paragraph's place.
      '--from': ofParagraph ? 'paragraph' : 'head',
    };
  }
  if (!ofParagraph) reading.leftOut.add('float');
  const isRight = left + size.width / 2 > page.width / 2;
  return { float: isRight ? 'right' : 'left', margin: isRight ? '2pt 0 4pt 9pt' : '2pt 9pt 4pt 0' };
}
