import type { Schema } from 'hast-util-sanitize';

const names = (list: string): string[] => list.trim().split(/\s+/);
const within = (space: string, list: string): string[] => names(list).map((name) => `${space}:${name}`);

/** HTML Standard, 4.3 to 4.11, and 16.2 for those that old pages use: whatever shows words and runs or loads nothing. */
const HTML = names(`
  article section nav aside h1 h2 h3 h4 h5 h6 hgroup header footer address main search
  p hr pre blockquote ol ul menu li dl dt dd figure figcaption div center
  a em strong small s cite q dfn abbr ruby rt rp rb rtc data time code var samp kbd sub sup i b u mark bdi bdo span br wbr
  ins del picture img map area
  table caption colgroup col tbody thead tfoot tr td th
  label input button select datalist optgroup option textarea output progress meter fieldset legend details summary
  acronym basefont big blink dir font listing marquee multicol nobr spacer strike tt
`);

/** SVG 2, but for what runs, animates, refers to elsewhere or holds HTML. */
const SVG = within(
  'svg',
  `
  svg g defs desc title metadata symbol switch a view
  path rect circle ellipse line polyline polygon image text textPath tspan
  marker pattern mask clipPath linearGradient radialGradient stop filter
  feBlend feColorMatrix feComponentTransfer feComposite feConvolveMatrix feDiffuseLighting feDisplacementMap
  feDistantLight feDropShadow feFlood feFuncA feFuncB feFuncG feFuncR feGaussianBlur feImage feMerge feMergeNode
  feMorphology feOffset fePointLight feSpecularLighting feSpotLight feTile feTurbulence
`,
);

/** MathML Core, and MathML 3 where pages use it. */
const MATH = within(
  'math',
  `
  math mrow mi mn mo ms mtext mspace mfrac msqrt mroot mstyle merror mpadded mphantom mfenced menclose
  msub msup msubsup munder mover munderover mmultiscripts mprescripts none mtable mtr mlabeledtr mtd semantics
`,
);

/** HTML Standard, Attributes; what acts, asks, sends, loads by itself or stands in for something else is not among them. */
const HTML_ATTRIBUTES = names(`
  abbr align alt bgcolor border cellpadding cellspacing char charoff checked cite class clear color cols colspan
  compact coords datetime dir disabled download face for frame headers height high hidden href hreflang id inert ismap
  kind label lang list low max maxlength media min minlength multiple name noshade nowrap open optimum pattern
  placeholder readonly rel required rev reversed role rows rowspan rules scope selected shape size span spellcheck
  src start step style summary title translate type usemap valign value vspace hspace width wrap xml:lang
`);

/** WAI-ARIA 1.2, states and properties that say something of what stands there. */
const ARIA_ATTRIBUTES = names(`
  aria-braillelabel aria-checked aria-colcount aria-colindex aria-colspan aria-current aria-describedby aria-description
  aria-details aria-disabled aria-expanded aria-hidden aria-invalid aria-label aria-labelledby aria-level aria-multiline
  aria-orientation aria-owns aria-placeholder aria-posinset aria-pressed aria-readonly aria-required aria-roledescription
  aria-rowcount aria-rowindex aria-rowspan aria-selected aria-setsize aria-sort aria-valuemax aria-valuemin aria-valuenow
  aria-valuetext
`);

/** SVG 2, attributes and presentation attributes. */
const SVG_ATTRIBUTES = names(`
  alignment-baseline amplitude azimuth baseFrequency baseline-shift bias clip clip-path clip-rule clipPathUnits
  color-interpolation color-interpolation-filters color-rendering cx cy d diffuseConstant direction display divisor
  dominant-baseline dx dy edgeMode elevation exponent fill fill-opacity fill-rule filter filterUnits flood-color
  flood-opacity font-family font-size font-size-adjust font-stretch font-style font-variant font-weight fr fx fy
  gradientTransform gradientUnits image-rendering in in2 intercept k1 k2 k3 k4 kernelMatrix kernelUnitLength
  lengthAdjust letter-spacing lighting-color limitingConeAngle marker-end marker-mid marker-start markerHeight
  markerUnits markerWidth mask maskContentUnits maskUnits mode numOctaves offset opacity operator order orient
  orientation overflow paint-order pathLength patternContentUnits patternTransform patternUnits points pointsAtX
  pointsAtY pointsAtZ preserveAlpha preserveAspectRatio primitiveUnits r radius refX refY result rotate rx ry scale seed
  shape-rendering side slope spacing specularConstant specularExponent spreadMethod startOffset stdDeviation
  stitchTiles stop-color stop-opacity stroke stroke-dasharray stroke-dashoffset stroke-linecap stroke-linejoin
  stroke-miterlimit stroke-opacity stroke-width surfaceScale systemLanguage tableValues targetX targetY text-anchor
  text-decoration text-orientation text-rendering textLength transform transform-origin unicode-bidi values
  vector-effect version viewBox visibility word-spacing writing-mode x x1 x2 xChannelSelector xlink:href xlink:title
  xml:space y y1 y2 yChannelSelector z
`);

/** MathML Core, and MathML 3 where pages use it. */
const MATH_ATTRIBUTES = names(`
  accent accentunder alttext bevelled close columnalign columnlines columnspacing columnspan columnsep denomalign depth
  display displaystyle fence fontstyle fontweight form framespacing largeop linebreak linethickness lspace mathbackground
  mathcolor mathsize mathvariant maxsize minsize movablelimits notation numalign open close rowalign rowlines rowspacing
  rspace scriptlevel scriptminsize scriptsizemultiplier separator separators stretchy subscriptshift superscriptshift
  symmetric voffset
`);

/** Addresses that lead somewhere a person goes; what lies inside the snapshot has no scheme. */
const SCHEMES = ['http', 'https', 'mailto'];

/** What a snapshot may hold. Elements of drawings and formulas go by `svg:NAME` and `math:NAME`. */
export const ALLOWED: Schema = {
  tagNames: [...HTML, ...SVG, ...MATH],
  attributes: { '*': [...new Set([...HTML_ATTRIBUTES, ...ARIA_ATTRIBUTES, ...SVG_ATTRIBUTES, ...MATH_ATTRIBUTES])] },
  protocols: { href: SCHEMES, src: SCHEMES, cite: SCHEMES, 'xlink:href': SCHEMES },
  ancestors: {},
  required: {},
  clobber: [],
  strip: [],
  allowComments: false,
  allowDoctypes: false,
};
