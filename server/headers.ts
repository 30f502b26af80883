/** Style elements that packages in use add by script: the icons' own style. */
const STYLE_ELEMENTS = "'sha256-upI9SLfyzV/ipYx29nyC6FfYjZIfdwcyAvp2M3uZwqM='";
/** The empty style element that the charts fill by script. */
const EMPTY_STYLE = "'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='";
/** What drag and drop keeps its picture in while something is carried. */
const DRAG_STYLE = "'sha256-tI5OGjOXfdbkxj5dcNYAmqoTrzYFQ1Ja3nPYyhMPafM='";
/** What keeps the lists in place of which only what is seen is drawn. */
const SCROLL_STYLE = "'sha256-NioKnUhAWIPG1FfdlXRRJiUMWVaO2lqsAA83ioDrbRs='";
/** What lies over the page: the finder's layer, its backdrop, and texts for the ear only. */
const OVERLAY_STYLES = [
  "'sha256-CcrXDjmowgW29Hlg/uZ8h05hSs8VRqliv/k7QWU4Yb0='",
  "'sha256-UssxMTUZa7g+WrWTxbVzFpE3o3lEbjO69XA8YUVYbJ4='",
  "'sha256-5Aa95/ZO6hntqOK1ZYDkfF0M76NFmrG+N39v6gp+12k='",
].join(' ');
/** The one style attribute inside the icons' drawings. */
const STYLE_ATTRIBUTES = "'sha256-YHUI4IMykJ7n5sDFEsxxDOvEvFU0suOaKbivPZWX70Y='";

/** Scripts, workers, styles, fonts and connections from this server only. */
export const SECURITY_HEADERS: Readonly<Record<string, string>> = {
  'Content-Security-Policy': [
    "default-src 'none'",
    "script-src 'self'",
    `style-src 'self' ${STYLE_ELEMENTS} ${EMPTY_STYLE} ${DRAG_STYLE} ${SCROLL_STYLE} ${OVERLAY_STYLES}`,
    `style-src-attr 'unsafe-hashes' ${STYLE_ATTRIBUTES}`,
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "base-uri 'self'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join('; '),
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Permissions-Policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  'X-Frame-Options': 'DENY',
};
