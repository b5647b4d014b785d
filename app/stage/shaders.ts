/**
 * What the graphics card does with a mesh (`core/rig/stage-mesh/stage-mesh.ts`): places each corner by the row of its instance, pushes
 * it outward along the mitre by half the line and half a screen pixel, and paints it.
 */
import { ROW_SHIFT, TAG } from '~~/core/rig/stage-mesh/mesh-sheet.ts'
import { SHADE } from '~~/core/rig/depth/eye.ts'
import { FOAM } from '~~/core/signal/waves.ts'
import { PER_ROW, ROWS_ACROSS } from '~~/core/rig/stage-mesh/instance-table.ts'

/** Texels of a row. */
export const TEXELS = PER_ROW / 4

/** A number as the shading language writes it. */
const num = (v: number) => v.toFixed(9)
const has = (tag: number) => `(tag & ${tag}u) != 0u`

const HEAD = `#version 300 es
precision highp float;
precision highp int;
uniform highp sampler2D rows;
uniform vec2 half_seen;
uniform vec2 centre;
uniform float pixel;
in vec2 point;
in vec2 before;
in vec2 after;
in uint tag;
// What is one for a whole triangle costs nothing to set up: where a fill changes to its far end only the way there differs.
flat out vec4 paint;
flat out vec4 far;
// How much of it is there, how far it is on that way, and where on a picture it lies.
out vec4 lies;

vec2 along(vec2 from, vec2 to) {
  vec2 d = to - from;
  float l = length(d);
  return l > 0.0 ? vec2(d.y, -d.x) / l : vec2(0.0);
}

ivec2 texel(int row, int each) {
  return ivec2((row % ${ROWS_ACROSS}) * each, row / ${ROWS_ACROSS});
}

// How far a corner is pushed along the outline's outside: to the right of its way from a to b.
vec2 pushed(vec2 a, vec2 b, float by) {
  vec2 n = a + b;
  float square = dot(n, n);
  // The mitre reaches 1 / cos of half the angle, held to four times so that spikes stay short.
  bool end = ${has(TAG.end)} || a == vec2(0.0) || b == vec2(0.0);
  float reach = square > 0.0 ? (end ? inversesqrt(square) : square > 0.25 ? 2.0 / square : 4.0 * inversesqrt(square)) : 0.0;
  return n * reach * by;
}

float out_by(float half_line, float fringe) {
  return (${has(TAG.lineOut)} ? half_line : ${has(TAG.lineIn)} ? -half_line : 0.0)
    + (${has(TAG.fringeOut)} ? fringe * 0.5 : ${has(TAG.fringeIn)} ? -fringe * 0.5 : 0.0);
}

void painted(ivec2 at, float alpha, vec4 fill, vec4 edge, vec2 stands) {
  bool line = ${has(TAG.line)};
  lies.x = ${has(TAG.solid)} ? 1.0 : 0.0;
  paint = far = vec4(line ? edge.rgb : fill.rgb, alpha);
  if (!line && edge.w > 0.5) {
    vec4 other = texelFetch(rows, at + ivec2(4, 0), 0);
    vec4 slope = texelFetch(rows, at + ivec2(5, 0), 0);
    far = vec4(other.rgb, alpha * other.w);
    lies.y = dot(slope.xy, edge.w > 1.5 ? point : stands) + slope.z;
  }
}
`

const ROW = `
  int row = int(tag >> ${ROW_SHIFT}u);
  ivec2 at = texel(row, ${TEXELS});
  vec4 x = texelFetch(rows, at, 0);
  vec4 y = texelFetch(rows, at + ivec2(1, 0), 0);
  float alpha = ${has(TAG.line)} ? y.w : x.w;
  paint = far = vec4(0.0);
  lies = vec4(0.0, 0.0, point);
  if (alpha <= 0.0) {
    gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
    return;
  }
  vec4 fill = texelFetch(rows, at + ivec2(2, 0), 0);
  vec4 edge = texelFetch(rows, at + ivec2(3, 0), 0);
`

export const VERTEX = `${HEAD}
void main() {
  ${ROW}
  mat2 turn = mat2(x.x, y.x, x.y, y.y);
  vec2 p = turn * point;
  bool turned = (${has(TAG.clockwise)}) != (determinant(turn) < 0.0);
  float by = out_by(fill.w, pixel);
  vec2 stands = p + vec2(x.z, y.z) + pushed(along(turn * before, p), along(p, turn * after), turned ? -by : by);
  gl_Position = vec4((stands - centre) / half_seen, 0.0, 1.0);
  painted(at, alpha, fill, edge, stands);
}`

const PAINT = `#version 300 es
precision highp float;
// Whether a picture lies on it (1), or one that is gone (2).
uniform float pictured;
uniform sampler2D picture;
flat in vec4 paint;
flat in vec4 far;
in vec4 lies;
out vec4 colour;

vec4 painted() {
  vec4 c = mix(paint, far, clamp(lies.y, 0.0, 1.0));
  c.a *= lies.x;
  vec2 spot = lies.zw;
  if (pictured < 0.5) return vec4(c.rgb * c.a, c.a);
  if (pictured > 1.5) {
    float cross = min(abs(spot.x - spot.y), abs(spot.x + spot.y));
    return vec4(vec3(cross < 0.03 ? 0.35 : 0.7), 1.0) * c.a * 0.6;
  }
  return texture(picture, vec2(spot.x, -spot.y) * 0.5 + 0.5) * c.a;
}
`

export const FRAGMENT = `${PAINT}
void main() {
  colour = painted();
}`

/** The same in depth: beside the rows how near each corner is, where its back lies, and the waves of water. */
export const DEEP_VERTEX = `${HEAD}
uniform highp sampler2D deep;
uniform highp sampler2D waters;
uniform float eye;
uniform float even;
uniform vec2 reach;
in vec3 height;
out vec3 stood;
out vec3 normal;
out float faced;
out float foam;

// Where a corner of an instance is in eye space.
vec3 seat(int row, vec2 q) {
  ivec2 at = texel(row, ${TEXELS});
  vec3 x = texelFetch(rows, at, 0).xyz;
  vec3 y = texelFetch(rows, at + ivec2(1, 0), 0).xyz;
  vec3 z = texelFetch(deep, texel(row, 2), 0).xyz;
  return vec3(dot(x.xy, q) + x.z, dot(y.xy, q) + y.z, dot(z.xy, q) + z.z);
}

vec3 corner(int row, vec2 q, float raised, vec3 up, vec4 back, float taper) {
  if (${has(TAG.next)}) return seat(row + int(back.w), q);
  if (${has(TAG.back)}) return seat(row, q * taper) + back.xyz;
  return seat(row, q) + up * raised;
}

float nearness(vec3 p) {
  return max(1e-4, 1.0 - p.z / eye);
}

vec4 clipped(vec2 stands, vec3 p) {
  float w = 1.0 - p.z / eye;
  float d = eye - p.z;
  // From how far off the furthest is to the nearest, as the card counts it.
  float z = (d * (reach.y + reach.x) - 2.0 * reach.y * reach.x) / (reach.y - reach.x);
  return vec4((stands - centre) * w / half_seen, z / eye, w);
}

void sea(int row, vec4 x, vec4 y, vec4 back, vec4 fill, vec4 edge, float alpha) {
  int line = int(back.w);
  vec4 size = texelFetch(waters, ivec2(0, line), 0);
  vec4 kind = texelFetch(waters, ivec2(1, line), 0);
  vec2 q = vec2(point.x * size.y, -point.y * size.z);
  float up = 0.0;
  vec2 slope = vec2(0.0);
  if (!(${has(TAG.back)})) {
    for (int k = 0; k < int(kind.y); k++) {
      vec4 wave = texelFetch(waters, ivec2(2 + k, line), 0);
      float turns = fract(wave.x * q.x + wave.y * q.y + wave.z) * 6.283185307179586;
      float s = sin(turns);
      float u = (s + 1.0) / 2.0;
      up += wave.w * (s + kind.x * (2.0 * u * u - 1.0 - s));
      slope += wave.w * cos(turns) * (1.0 + kind.x * s) * 6.283185307179586 * wave.xy;
    }
    up = clamp(up, -1.0, 1.0);
  }
  float high = ${has(TAG.back)} ? -size.x : max(-size.x, size.x + size.w * up);
  vec3 a = vec3(x.x, y.x, texelFetch(deep, texel(row, 2), 0).x);
  vec3 b = vec3(x.y, y.y, texelFetch(deep, texel(row, 2), 0).y);
  vec3 o = vec3(x.z, y.z, texelFetch(deep, texel(row, 2), 0).z);
  vec3 p = a * q.x + b * high + back.xyz * q.y + o;
  stood = p;
  if (!(${has(TAG.side)})) {
    vec2 g = slope * size.w;
    normal = cross(back.xyz + b * g.y, a + b * g.x);
    foam = kind.z > 0.0 ? clamp((up - ${num(FOAM.from)} + ${num(FOAM.down)} * kind.z) * ${num(FOAM.high)}, 0.0, 1.0)
      * clamp((kind.w - ${num(FOAM.steep)}) * ${num(FOAM.rough)}, 0.0, 1.0) : 0.0;
  }
  vec2 stands = p.xy / nearness(p);
  gl_Position = clipped(stands, p);
  faced = ${has(TAG.side)} ? 2.0 : 3.0;
  paint = far = vec4(fill.rgb, alpha);
  lies.x = 1.0;
}

void main() {
  ${ROW}
  stood = normal = vec3(0.0);
  faced = foam = 0.0;
  vec4 z = texelFetch(deep, texel(row, 2), 0);
  vec4 back = texelFetch(deep, texel(row, 2) + ivec2(1, 0), 0);
  if (${has(TAG.water)}) {
    sea(row, x, y, back, fill, edge, alpha);
    return;
  }
  bool lit = z.w >= 0.0;
  // What is laid on the stage is told with heights along its third axis.
  vec3 up = back.xyz;
  vec3 p = corner(row, point, height.x, up, back, z.w);
  stood = p;
  if (${has(TAG.side)}) {
    vec2 stands = p.xy / nearness(p);
    gl_Position = clipped(stands, p);
    faced = 2.0;
    painted(at, alpha, fill, edge, stands);
    return;
  }
  vec3 before_it = corner(row, before, height.y, up, back, z.w);
  vec3 after_it = corner(row, after, height.z, up, back, z.w);
  vec2 here = p.xy / nearness(p);
  vec3 m0 = vec3(x.x, y.x, z.x);
  vec3 m1 = vec3(x.y, y.y, z.y);
  vec3 face = cross(m0, m1);
  bool turned = (${has(TAG.clockwise)}) != (dot(face, vec3(0.0, 0.0, eye) - p) < 0.0);
  float wide = fill.w * (even > 0.5 ? 1.0 : 1.0 / nearness(p));
  // The edges of solids are smoothed where they are drawn, since sides join them.
  float by = out_by(wide, lit && !(${has(TAG.line)}) ? 0.0 : pixel);
  vec2 push = pushed(
    along(before_it.xy / nearness(before_it), here),
    along(here, after_it.xy / nearness(after_it)),
    turned ? -by : by);
  vec2 stands = here + push;
  faced = lit ? 1.0 : 0.0;
  normal = lit ? face : vec3(0.0);
  // A line lies on the face that it goes round.
  vec3 over = p;
  if (lit && ${has(TAG.line)}) {
    over += normalize(dot(face, back.xyz) > 0.0 ? -face : face) * 0.6;
    faced = 0.0;
  }
  gl_Position = clipped(stands, over);
  painted(at, alpha, fill, edge, stands);
}`

export const DEEP_FRAGMENT = `${PAINT}
uniform vec3 light;
uniform float eye;
uniform float least;
in vec3 stood;
in vec3 normal;
in float faced;
in float foam;
void main() {
  vec4 c = painted();
  if (c.a < least) discard;
  if (faced > 0.5) {
    // Given for faces (1) and for the surface of water (3), found for sides (2).
    vec3 n = faced > 1.5 && faced < 2.5 ? cross(dFdx(stood), dFdy(stood)) : normal;
    float l = length(n);
    n = l > 0.0 ? n / l : vec3(0.0, 0.0, 1.0);
    // A face is lit from the side on which it is seen.
    if (faced < 2.5 && dot(n, vec3(0.0, 0.0, eye) - stood) < 0.0) n = -n;
    c.rgb = mix(c.rgb, vec3(0.97, 0.98, 0.98) * c.a, foam);
    c.rgb = min(c.rgb * clamp(${num(SHADE.still)} + ${num(SHADE.lit)} * dot(n, light), ${num(SHADE.least)}, ${num(SHADE.most)}), vec3(c.a));
  }
  colour = c;
}`
