/**
 * What the graphics card does with a plate (`core/rig/plate.ts`): places each corner by the row of its instance, pushes
 * it outward along the mitre by half the line and half a screen pixel, and paints it.
 */
import { ROW_SHIFT, TAG } from '~~/core/rig/pen.ts'
import { PER_ROW, ROWS_ACROSS } from '~~/core/rig/rows.ts'

/** Texels of a row. */
export const TEXELS = PER_ROW / 4

const has = (tag: number) => `(tag & ${tag}u) != 0u`

export const VERTEX = `#version 300 es
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
out vec4 paint;
out vec4 far;
out float way;

vec2 along(vec2 from, vec2 to) {
  vec2 d = to - from;
  float l = length(d);
  return l > 0.0 ? vec2(d.y, -d.x) / l : vec2(0.0);
}

void main() {
  int row = int(tag >> ${ROW_SHIFT}u);
  ivec2 at = ivec2((row % ${ROWS_ACROSS}) * ${TEXELS}, row / ${ROWS_ACROSS});
  vec4 x = texelFetch(rows, at, 0);
  vec4 y = texelFetch(rows, at + ivec2(1, 0), 0);
  bool line = ${has(TAG.line)};
  float alpha = line ? y.w : x.w;
  paint = far = vec4(0.0);
  way = 0.0;
  if (alpha <= 0.0) {
    gl_Position = vec4(2.0, 2.0, 2.0, 1.0);
    return;
  }
  mat2 turn = mat2(x.x, y.x, x.y, y.y);
  vec2 away = vec2(x.z, y.z);
  vec2 p = turn * point;
  vec2 a = along(turn * before, p);
  vec2 b = along(p, turn * after);
  vec2 n = a + b;
  float square = dot(n, n);
  // The mitre reaches 1 / cos of half the angle, held to four times so that spikes stay short.
  bool end = ${has(TAG.end)} || a == vec2(0.0) || b == vec2(0.0);
  float reach = square > 0.0 ? (end ? inversesqrt(square) : square > 0.25 ? 2.0 / square : 4.0 * inversesqrt(square)) : 0.0;
  vec4 fill = texelFetch(rows, at + ivec2(2, 0), 0);
  vec4 edge = texelFetch(rows, at + ivec2(3, 0), 0);
  float out_by = (${has(TAG.lineOut)} ? fill.w : ${has(TAG.lineIn)} ? -fill.w : 0.0)
    + (${has(TAG.fringeOut)} ? pixel * 0.5 : ${has(TAG.fringeIn)} ? -pixel * 0.5 : 0.0);
  bool turned = (${has(TAG.clockwise)}) != (determinant(turn) < 0.0);
  vec2 stands = p + away + n * reach * (turned ? -out_by : out_by);
  gl_Position = vec4((stands - centre) / half_seen, 0.0, 1.0);
  float solid = ${has(TAG.solid)} ? alpha : 0.0;
  paint = vec4(line ? edge.rgb : fill.rgb, solid);
  far = paint;
  if (!line && edge.w > 0.5) {
    vec4 other = texelFetch(rows, at + ivec2(4, 0), 0);
    vec4 slope = texelFetch(rows, at + ivec2(5, 0), 0);
    far = vec4(other.rgb, solid * other.w);
    way = dot(slope.xy, stands) + slope.z;
  }
}`

export const FRAGMENT = `#version 300 es
precision highp float;
in vec4 paint;
in vec4 far;
in float way;
out vec4 colour;
void main() {
  vec4 c = mix(paint, far, clamp(way, 0.0, 1.0));
  colour = vec4(c.rgb * c.a, c.a);
}`
