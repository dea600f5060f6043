/**
 * Wood by streaks and rings from value noise (a 256 × 256 table), in mm, so that walls and floors show the grain they
 * cut through.
 */
const WOOD = /* glsl */ `
uniform sampler2D noiseMap;
float noise(vec2 p) { vec2 i = floor(p), f = fract(p); f = f * f * (3. - 2. * f);
  return texture2D(noiseMap, (i + f + 0.5) / 256.).r; }
float fbm(vec2 p) { return 0.5 * noise(p) + 0.25 * noise(p * 2.03 + 7.1) + 0.125 * noise(p * 4.1 + 3.3); }
vec3 wood(vec3 p, vec3 base, float grain) {
  float y = p.y + 0.7 * p.z;
  float warp = 16. * fbm(vec2(p.x * 0.008, y * 0.02)) + 3. * fbm(vec2(p.x * 0.03, y * 0.06 + 9.));
  float ring = 0.5 + 0.5 * sin((y + warp) * 0.62);
  ring = pow(ring, 3.);
  float fibre = noise(vec2(p.x * 0.25, y * 5.)) * 0.6 + noise(vec2(p.x * 0.9, y * 13.)) * 0.4;
  float pore = smoothstep(0.78, 0.95, noise(vec2(p.x * 0.35 + 31., y * 7.5)));
  float figure = grain * (0.13 * ring + 0.09 * (fibre - 0.5) + 0.10 * pore);
  return base * (1. - figure) * (1. - 0.03 * grain * noise(p.xy * 3.));
}
`;

const HEIGHT = /* glsl */ `
uniform sampler2D heights; uniform vec2 cells; uniform vec2 stock; uniform float proofMix; uniform float thickness;
#ifdef SMOOTH_HEIGHTS
float heightAt(vec2 p) { return proofMix * texture2D(heights, p / stock).r; }
#else
float fetchH(ivec2 c) { return texelFetch(heights, clamp(c, ivec2(0), ivec2(cells) - 1), 0).r; }
float heightAt(vec2 p) {
  vec2 g = p / stock * cells - 0.5; ivec2 i = ivec2(floor(g)); vec2 f = g - floor(g);
  float near = mix(fetchH(i), fetchH(i + ivec2(1, 0)), f.x);
  float far = mix(fetchH(i + ivec2(0, 1)), fetchH(i + ivec2(1, 1)), f.x);
  return proofMix * mix(near, far, f.y);
}
#endif
`;

export const PIECE_VERTEX = /* glsl */ `
${HEIGHT}
attribute float skirt; attribute vec3 side; uniform float spacing; uniform float plan; varying vec3 at;
  varying vec3 facing; varying float isSide;
void main() {
  at = position; isSide = dot(side, side); facing = side;
  vec2 inner = clamp(position.xy, vec2(0.001), stock - 0.001);
  // The highest of the surroundings: edges of the top stay where they are and walls fall inside the cut.
  float h = heightAt(inner);
  for (int i = 0; i < 8; i++) {
    float a = float(i) * 0.785398;
    h = max(h, heightAt(clamp(inner + spacing * 0.6 * vec2(cos(a), sin(a)), vec2(0.001), stock - 0.001)));
  }
  // From straight above depth shows by light alone: a flat top keeps every edge as sharp as the heights are.
  at.z = skirt > 0.5 ? -thickness : plan > 0.5 ? 0. : max(h, -thickness);
  gl_Position = projectionMatrix * viewMatrix * vec4(at, 1.);
}`;

export const PIECE_FRAGMENT = /* glsl */ `
precision highp float;
${HEIGHT}
${WOOD}
uniform sampler2D shading; uniform vec3 face; uniform vec3 cutFace; uniform float grain;
uniform sampler2D picture; uniform vec4 pictureRect; uniform float pictureMix; uniform float dim; uniform float wipe;
  uniform int colouring; uniform float painted; uniform float coat;
  uniform vec3 paint; uniform float deepest; uniform sampler2D cutMap;
  uniform float lambda; uniform float thin; uniform float lamp; uniform float room;
  uniform sampler2D leftMap; uniform vec3 cutColours[8];
varying vec3 at; varying vec3 facing; varying float isSide;
uniform vec3 light;
vec3 ramp(float t) {
  vec3 a = vec3(0.973, 0.906, 0.690), b = vec3(0.941, 0.659, 0.282);
  vec3 c = vec3(0.812, 0.310, 0.294), d = vec3(0.357, 0.165, 0.369);
  return t < 0.333 ? mix(a, b, t * 3.) : t < 0.667 ? mix(b, c, t * 3. - 1.) : mix(c, d, t * 3. - 2.);
}
void main() {
  if (isSide > 0.5) {
    vec3 base = wood(vec3(at.x + at.z * 0.2, at.y, at.z * 3.), face * 0.80, grain * 1.2);
    float l = 0.62 + 0.34 * max(0., dot(facing, light));
    l *= mix(0.80, 1., smoothstep(-thickness, -thickness * 0.2, at.z));
    gl_FragColor = vec4(base * l, 1.);
    return;
  }
  float h = heightAt(at.xy);
  bool left = wipe > 0. && gl_FragCoord.x < wipe;
  if (left) h = 0.;
  if (h <= -thickness + 0.005) discard;
  vec2 e = stock / cells;
  vec3 n = vec3(0., 0., 1.);
  float shade = 1., open = 1.;
  if (!left && proofMix > 0.01) {
    float gx = (heightAt(at.xy + vec2(e.x, 0.)) - heightAt(at.xy - vec2(e.x, 0.))) / (2. * e.x);
    float gy = (heightAt(at.xy + vec2(0., e.y)) - heightAt(at.xy - vec2(0., e.y))) / (2. * e.y);
    n = normalize(vec3(-gx, -gy, 1.));
    // Shadow and openness were worked out with the surface.
    vec2 lit = texture2D(shading, at.xy / stock).rg;
    shade = mix(0.62, 1., mix(1., lit.r, proofMix));
    open = mix(1., lit.g, proofMix);
  }
  float cut = smoothstep(-0.0005 - coat, -0.02 - coat, h);
  vec3 base = wood(vec3(at.xy, h), mix(face, cutFace, cut), grain);
  // A painted skin hides the grain until it is cut.
  if (painted > 0.5) base = mix(paint * (0.97 + 0.06 * noise(at.xy * 1.7)), base, cut);
  if (colouring == 1 && cut > 0.) base = mix(base, ramp(clamp(-h / max(deepest, 0.01), 0., 1.)), 0.85 * cut);
  else if (colouring == 2 && cut > 0.) {
    int k = int(texture2D(cutMap, at.xy / stock).r * 255. + 0.5);
    if (k > 0) base = mix(base, cutColours[(k - 1) % 8], 0.8 * cut);
  } else if (colouring == 3) {
    // Everything else pale, so that what is left stands out.
    base = mix(vec3(dot(base, vec3(0.3, 0.6, 0.1))), vec3(1.), 0.35);
    float left = texture2D(leftMap, at.xy / stock).r * 255.;
    if (left > 0.5) base = ramp(clamp(0.25 + left * 0.015, 0., 1.));
  }
  // Level ground is as bright whatever the light's height; what faces it is brighter, up to a limit.
  float diffuse = min(1.9, max(0., dot(n, light)) / light.z);
  vec3 c = base * (0.40 * open + 0.60 * diffuse * shade);
  c += 0.05 * pow(max(0., dot(n, normalize(light + vec3(0., -0.1, 1.)))), 24.);
  if (colouring == 4) {
    // Light through a thickness t falls as exp(-t / lambda): white where the sheet is thinnest. Values as encoded.
    float through = min(1., exp((thin - (thickness + h)) / lambda));
    vec3 behind = pow(lamp * through * vec3(1., 0.93, 0.82), vec3(1. / 2.2));
    c = pow(pow(c * sqrt(room), vec3(2.2)) + pow(behind, vec3(2.2)), vec3(1. / 2.2));
  }
  vec2 uv = (at.xy - pictureRect.xy) / pictureRect.zw;
  float mixing = left ? max(pictureMix, 0.95) : pictureMix;
  if (mixing > 0. && uv.x >= 0. && uv.x <= 1. && uv.y >= 0. && uv.y <= 1.) {
    vec4 p = texture2D(picture, uv);
    c = mix(c, p.rgb * (left ? 1. : 0.35 + 0.65 * min(1.1, diffuse) * shade), mixing * p.a);
  }
  // Under paths alone the stock steps back, so that their colours tell.
  gl_FragColor = vec4(c * (1. - dim), 1.);
}`;

export const MAT_VERTEX =
  /* glsl */ "varying vec3 at; void main() { at = position; gl_Position = projectionMatrix * modelViewMatrix * " +
  "vec4(position, 1.); }";

export const MAT_FRAGMENT = /* glsl */ `
precision highp float;
uniform vec2 stock; uniform float thickness; uniform vec3 light; varying vec3 at;
float line(vec2 p, float every, float width) { vec2 g = abs(fract(p / every + 0.5) - 0.5) * every;
  vec2 w = fwidth(p) * width; vec2 l = 1. - smoothstep(w * 0.5, w * 1.5, g); return max(l.x, l.y); }
void main() {
  vec3 mat = vec3(0.137, 0.259, 0.227), grid = vec3(0.184, 0.329, 0.286);
  float near = 1. - smoothstep(0.02, 0.12, fwidth(at.x) / 10.);
  vec3 c = mix(mat, grid, max(0.55 * near * line(at.xy, 10., 0.6), 0.9 * line(at.xy, 50., 0.8)));
  // Contact shadow: dark close under the stock, thrown away from the light.
  vec2 centre = stock * 0.5;
  vec2 q = abs(at.xy - centre + 0.65 * light.xy * thickness) - stock * 0.5;
  float d = length(max(q, 0.)) + min(max(q.x, q.y), 0.);
  c *= 1. - 0.62 * (1. - smoothstep(-0.5 * thickness, 0.55 * thickness, max(d, 0.)));
  vec2 k = abs(at.xy - centre) - stock * 0.5;
  float dk = length(max(k, 0.)) + min(max(k.x, k.y), 0.);
  // Seen through a cut the mat lies in shade, but it is the mat.
  c *= dk < 0. ? 1.35 : 1. - 0.45 * (1. - smoothstep(0., 3.0, dk));
  float far = length((at.xy - centre) / max(stock.x, stock.y));
  c *= 1. - 0.28 * smoothstep(0.6, 2.4, far);
  gl_FragColor = vec4(c, 1.);
}`;

/** The cutter at the playhead: plain steel, see-through enough to watch the cut. */
export const STEEL_VERTEX = /* glsl */ `
varying vec3 n;
void main() {
  n = normalize(normal);
  gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.);
}`;
export const STEEL_FRAGMENT = /* glsl */ `
varying vec3 n;
void main() {
  float l = 0.45 + 0.55 * max(0., dot(normalize(n), normalize(vec3(-0.55, 0.62, 0.62))));
  float shine = pow(max(0., dot(normalize(n), normalize(vec3(-0.4, 0.3, 0.8)))), 18.);
  gl_FragColor = vec4(vec3(0.62, 0.66, 0.68) * l + 0.35 * shine, 0.78);
}`;
