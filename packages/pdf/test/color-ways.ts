import { readFileSync } from 'node:fs';
import { deflateSync } from 'node:zlib';
import { makePdf, stream } from './make-pdf';

/** A way in which colour gets into a file: what the page draws, its resources and entries, and further objects. */
export interface ColorWay {
  readonly content: string;
  readonly resources?: string;
  readonly entries?: string;
  readonly objects?: Readonly<Record<number, string>>;
}

/** Objects of a page begin at such a number, and its own are counted from 20. */
const OBJECTS_A_PAGE = 100;

/** A file with a page of A4 for each way, drawn in its corner. */
export function pagesDrawn(ways: readonly ColorWay[]): Uint8Array {
  const pages = ways.map((_, index) => (index + 1) * OBJECTS_A_PAGE);
  const drawn = ways.map(({ content, resources = '', entries = '', objects = {} }, index): Record<number, string> => {
    const first = pages[index]!;
    // Of what is packed nothing looks like a reference.
    const own = (text: string): string =>
      text.replace(/\b(2\d) 0 R\b/g, (_, number: string) => `${first + Number(number)} 0 R`);
    const page = `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595.27559 841.88976] /Contents ${first + 1} 0 R /Resources << /Font << /F1 9 0 R >> ${own(resources)} >> ${own(entries)} >>`;
    return {
      [first]: page,
      [first + 1]: stream(content),
      ...Object.fromEntries(Object.entries(objects).map(([number, object]) => [first + Number(number), own(object)])),
    };
  });
  return makePdf({
    1: '<< /Type /Catalog /Pages 2 0 R >>',
    2: `<< /Type /Pages /Kids [${pages.map((page) => `${page} 0 R`).join(' ')}] /Count ${pages.length} >>`,
    9: '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    ...Object.fromEntries(drawn.flatMap((objects) => Object.entries(objects))),
  });
}

/** The profiles that Debian's Ghostscript brings. */
const profile = (name: string, components: number): string => {
  const packed = deflateSync(readFileSync(`/usr/share/color/icc/ghostscript/${name}.icc`)).toString('latin1');
  return stream(packed, `/N ${components} /Filter /FlateDecode`);
};

const SQUARE = '50 50 100 100 re f';
const PLACED = 'q 120 0 0 120 40 90 cm /I Do Q';
const BOX = '/Type /XObject /Subtype /Form /BBox [0 0 200 300]';

const image = (space: string, data: string, entries = ''): string =>
  stream(data, `/Type /XObject /Subtype /Image /Width 2 /Height 2 /BitsPerComponent 8 /ColorSpace ${space} ${entries}`);

/** Four pixels: red, green, blue, ochre. */
const RGB = '\xdd\x11\x11\x11\xdd\x11\x11\x11\xdd\xaa\x77\x11';
const CMYK = '\x00\xee\xee\x00\xee\x00\xee\x00\xee\xee\x00\x00\x11\x44\xee\x22';

const BLUES = '<< /FunctionType 2 /Domain [0 1] /C0 [1 0.2 0.1] /C1 [0.1 0.3 0.9] /N 1 >>';
const OCHRE = '<< /FunctionType 2 /Domain [0 1] /C0 [0 0 0 0] /C1 [0 0.4 0.9 0.1] /N 1 >>';
const TWO_INKS = stream('{ 0 exch 0 }', '/FunctionType 4 /Domain [0 1 0 1] /Range [0 1 0 1 0 1 0 1]');

/** A picture drawn in a blend mode over two others, within a group of its own colours. */
const blended = (mode: string, group = '/CS /DeviceRGB'): ColorWay => ({
  content: '0.9 0.3 0.2 rg 20 40 100 120 re f 0.4 g 80 100 90 120 re f /B gs 0.2 0.5 0.8 rg 60 60 100 200 re f',
  resources: `/ExtGState << /B << /BM /${mode} >> >>`,
  entries: `/Group << /S /Transparency /I true ${group} >>`,
});

/** Every way that the standard knows (ISO 32000-1, 8.6, 8.7, 8.9, 11), one at a time. */
export const COLOR_WAYS: Readonly<Record<string, ColorWay>> = {
  'red, green and blue': { content: `0.8 0.2 0.1 rg ${SQUARE}` },
  'cyan, magenta, yellow and black': { content: `0.1 0.8 0.3 0.2 k ${SQUARE}` },
  'a line': { content: '0.1 0.2 0.9 RG 12 w 20 20 m 180 280 l S' },
  'calibrated colours': {
    content: `/C cs 0.9 0.3 0.1 sc ${SQUARE}`,
    resources:
      '/ColorSpace << /C [/CalRGB << /WhitePoint [0.95 1 1.09] /Gamma [2.2 2.2 2.2] /Matrix [0.4124 0.2126 0.0193 0.3576 0.7152 0.1192 0.1805 0.0722 0.9505] >>] >>',
  },
  'colours of a laboratory': {
    content: `/C cs 60 50 -40 sc ${SQUARE}`,
    resources: '/ColorSpace << /C [/Lab << /WhitePoint [0.95 1 1.09] /Range [-100 100 -100 100] >>] >>',
  },
  'a profile of three': {
    content: `/C cs 0.9 0.3 0.1 sc ${SQUARE}`,
    resources: '/ColorSpace << /C [/ICCBased 20 0 R] >>',
    objects: { 20: profile('srgb', 3) },
  },
  'a profile of four': {
    content: `/C cs 0.1 0.8 0.3 0.2 sc ${SQUARE}`,
    resources: '/ColorSpace << /C [/ICCBased 20 0 R] >>',
    objects: { 20: profile('default_cmyk', 4) },
  },
  'a profile in place of the device’s colours': {
    content: `0.9 0.3 0.1 rg ${SQUARE}`,
    resources: '/ColorSpace << /DefaultRGB [/ICCBased 20 0 R] >>',
    objects: { 20: profile('srgb', 3) },
  },
  'an ink of its own': {
    content: `/C cs 0.8 sc ${SQUARE}`,
    resources: '/ColorSpace << /C [/Separation /Ochre /DeviceCMYK 20 0 R] >>',
    objects: { 20: OCHRE },
  },
  'two inks': {
    content: `/C cs 0.8 0.5 sc ${SQUARE}`,
    resources: '/ColorSpace << /C [/DeviceN [/Ochre /Rose] /DeviceCMYK 20 0 R] >>',
    objects: { 20: TWO_INKS },
  },
  'a list of colours': {
    content: PLACED,
    resources: '/XObject << /I 20 0 R >>',
    objects: {
      20: stream(
        '\x00\x40',
        '/Type /XObject /Subtype /Image /Width 2 /Height 2 /BitsPerComponent 2 /ColorSpace [/Indexed /DeviceRGB 3 <dd111111dd111111ddaa7711>]',
      ),
    },
  },
  'a picture': { content: PLACED, resources: '/XObject << /I 20 0 R >>', objects: { 20: image('/DeviceRGB', RGB) } },
  'a picture of four inks': {
    content: PLACED,
    resources: '/XObject << /I 20 0 R >>',
    objects: { 20: image('/DeviceCMYK', CMYK) },
  },
  'a picture that shines through': {
    content: PLACED,
    resources: '/XObject << /I 20 0 R >>',
    objects: { 20: image('/DeviceRGB', RGB, '/SMask 21 0 R'), 21: image('/DeviceGray', '\xff\x80\x40\xc0') },
  },
  'a picture within the content': {
    content: `q 120 0 0 120 40 90 cm BI /W 2 /H 2 /BPC 8 /CS /RGB /F /AHx ID ${Buffer.from(RGB, 'latin1').toString('hex')}> EI Q`,
  },
  'a shading along a line': {
    content: '/S sh',
    resources: `/Shading << /S << /ShadingType 2 /ColorSpace /DeviceRGB /Coords [20 20 180 280] /Function ${BLUES} /Extend [true true] >> >>`,
  },
  'a shading about a point': {
    content: '/S sh',
    resources: `/Shading << /S << /ShadingType 3 /ColorSpace /DeviceRGB /Coords [100 150 10 100 150 90] /Function ${BLUES} >> >>`,
  },
  'a shading of triangles': {
    content: '/S sh',
    resources: '/Shading << /S 20 0 R >>',
    objects: {
      20: stream(
        '\x00\x10\x10\xdd\x11\x11\x00\xf0\x20\x11\xdd\x11\x00\x80\xf0\x11\x11\xdd',
        '/ShadingType 4 /ColorSpace /DeviceRGB /BitsPerCoordinate 8 /BitsPerComponent 8 /BitsPerFlag 8 /Decode [0 200 0 300 0 1 0 1 0 1]',
      ),
    },
  },
  'a pattern of coloured tiles': {
    content: `/Pattern cs /P scn ${SQUARE}`,
    resources: '/Pattern << /P 20 0 R >>',
    objects: {
      20: stream(
        '0.9 0.2 0.1 rg 0 0 30 30 re f 0.1 0.3 0.9 rg 30 30 30 30 re f',
        '/Type /Pattern /PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 60 60] /XStep 60 /YStep 60 /Resources << >>',
      ),
    },
  },
  'a pattern that is given its colour': {
    content: `/C cs 0.9 0.2 0.1 /P scn ${SQUARE}`,
    resources: '/Pattern << /P 20 0 R >> /ColorSpace << /C [/Pattern /DeviceRGB] >>',
    objects: {
      20: stream(
        '0 0 6 6 re f',
        '/Type /Pattern /PatternType 1 /PaintType 2 /TilingType 1 /BBox [0 0 12 12] /XStep 12 /YStep 12 /Resources << >>',
      ),
    },
  },
  'a pattern of a shading': {
    content: `/Pattern cs /P scn ${SQUARE}`,
    resources: `/Pattern << /P << /PatternType 2 /Shading << /ShadingType 2 /ColorSpace /DeviceRGB /Coords [50 50 150 150] /Function ${BLUES} >> >> >>`,
  },
  'a form with a group of its own': {
    content: '/X Do',
    resources: '/XObject << /X 20 0 R >>',
    objects: { 20: stream(`0.8 0.2 0.1 rg ${SQUARE}`, `${BOX} /Group << /S /Transparency /I true /CS /DeviceRGB >>`) },
  },
  'a page that is a group': {
    content: `0.5 g 20 20 60 60 re f 0.8 0.2 0.1 rg ${SQUARE}`,
    entries: '/Group << /S /Transparency /I true /CS /DeviceRGB >>',
  },
  'a page that is a group with a profile': {
    content: `0.5 g 20 20 60 60 re f 0.8 0.2 0.1 rg ${SQUARE}`,
    entries: '/Group << /S /Transparency /I true /CS [/ICCBased 20 0 R] >>',
    objects: { 20: profile('srgb', 3) },
  },
  'a group that knocks out': {
    ...blended('Multiply', '/K true /CS /DeviceRGB'),
  },
  'what shines through': {
    content: '0.9 0.3 0.2 rg 20 40 100 120 re f /B gs 0.2 0.5 0.8 rg 60 60 100 200 re f',
    resources: '/ExtGState << /B << /ca 0.5 >> >>',
  },
  'a mask of brightness': {
    content: `/M gs 0.8 0.2 0.1 rg ${SQUARE}`,
    resources: '/ExtGState << /M << /SMask << /S /Luminosity /G 20 0 R >> >> >>',
    objects: {
      20: stream(
        '1 0.8 0.2 rg 40 40 70 120 re f 0.4 g 110 40 60 120 re f',
        `${BOX} /Group << /S /Transparency /I true /CS /DeviceRGB >>`,
      ),
    },
  },
  'a mask of cover': {
    content: `/M gs 0.8 0.2 0.1 rg ${SQUARE}`,
    resources: '/ExtGState << /M << /SMask << /S /Alpha /G 20 0 R >> >> >>',
    objects: {
      20: stream('0 0 1 rg 40 40 70 120 re f', `${BOX} /Group << /S /Transparency /CS /DeviceRGB >>`),
    },
  },
  multiplied: blended('Multiply'),
  screened: blended('Screen'),
  'the difference': blended('Difference'),
  'its hue': blended('Hue'),
  'its saturation': blended('Saturation'),
  'its colour': blended('Color'),
  'its brightness': blended('Luminosity'),
  'a stamp': {
    content: '',
    entries: '/Annots [<< /Type /Annot /Subtype /Stamp /F 4 /Rect [40 40 160 160] /AP << /N 20 0 R >> >>]',
    objects: { 20: stream('0.8 0.2 0.1 rg 0 0 50 50 re f', '/Type /XObject /Subtype /Form /BBox [0 0 50 50]') },
  },
};

const GROUP = '/Group << /S /Transparency /I true /CS /DeviceRGB >>';

/** Pages that are black and grey alone, with what could make a printer draw them in all inks. */
export const BLACK_WAYS: Readonly<Record<string, ColorWay>> = {
  'a page that is a group of red, green and blue': { content: `0.5 g ${SQUARE}`, entries: GROUP },
  'a page that is a group of four inks': {
    content: `0.5 g ${SQUARE}`,
    entries: '/Group << /S /Transparency /CS /DeviceCMYK >>',
  },
  'a page that is a group of a profile': {
    content: `0.5 g ${SQUARE}`,
    entries: '/Group << /S /Transparency /I true /CS [/ICCBased 20 0 R] >>',
    objects: { 20: profile('srgb', 3) },
  },
  'a page that is a group that knocks out': {
    content: `0.5 g ${SQUARE}`,
    entries: '/Group << /S /Transparency /K true /CS /DeviceRGB >>',
  },
  'a page that is a group, of which something shines through': {
    content: `0.5 g 20 20 100 100 re f /B gs 0 g ${SQUARE}`,
    resources: '/ExtGState << /B << /ca 0.5 >> >>',
    entries: GROUP,
  },
  'a page that is a group, with something multiplied': {
    content: `0.5 g 20 20 100 100 re f /B gs 0.3 g ${SQUARE}`,
    resources: '/ExtGState << /B << /BM /Multiply >> >>',
    entries: GROUP,
  },
  'a page that is a group, with a picture that shines through': {
    content: PLACED,
    resources: '/XObject << /I 20 0 R >>',
    entries: GROUP,
    objects: {
      20: image('/DeviceGray', '\x11\x44\x77\xaa', '/SMask 21 0 R'),
      21: image('/DeviceGray', '\xff\x80\x40\xc0'),
    },
  },
};
