import { DoubleSide, NoBlending, NormalBlending, ShaderMaterial, Vector3, Vector4, type Texture } from 'three';
import { TILE_SIZE } from '@/workers';

/** How a picture is shown; its pixels stay as they are. Colours are red, green, blue from 0 to 1. */
export interface PictureLook {
  readonly contrast: number;
  readonly grey: boolean;
  readonly invert: boolean;
  /** Darkness from which a place counts as ink; undefined shows the picture as it is. */
  readonly ink: number | undefined;
  readonly tint: readonly [number, number, number] | undefined;
  /** What lies where there is no ink. */
  readonly backing: readonly [number, number, number];
}

const VERTEX =
  'varying vec2 at; void main() { at = uv; gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0); }';
const FRAGMENT = `
  uniform sampler2D picture; uniform float contrast; uniform float grey; uniform float invert; uniform float ink; uniform vec4 tint; uniform vec3 backing; uniform vec3 clip; uniform float opacity; varying vec2 at;
  float lightOf(vec3 color) { return dot(color, vec3(0.299, 0.587, 0.114)); }
#ifdef INK
  // The paper around a place: the lightest of what lies on two rings about it.
  float paperAround() {
    float paper = 0.0;
    for (int i = 0; i < 12; i++) {
      vec2 way = vec2(cos(float(i) * 0.5236), sin(float(i) * 0.5236)) / ${TILE_SIZE}.0;
      paper = max(paper, max(lightOf(texture2D(picture, at + 9.0 * way).rgb), lightOf(texture2D(picture, at + 24.0 * way).rgb)));
    }
    return paper;
  }
#endif
  void main() {
#ifdef ROUND
    if (distance(gl_FragCoord.xy, clip.xy) > clip.z) discard;
#endif
    vec3 color = texture2D(picture, at).rgb;
#ifdef INK
    float drawn = smoothstep(ink - 0.04, ink + 0.04, paperAround() - lightOf(color));
    // Not clear: under a fine tile a coarse one may lie, and its ink would show beside the lines.
    color = mix(backing, mix(color, tint.rgb, tint.a), drawn);
#else
    color = mix(color, vec3(lightOf(color)), grey);
    color = mix(color, 1.0 - color, invert);
    color = clamp((color - 0.5) * contrast + 0.5, 0.0, 1.0);
    // Dark becomes the tint, light stays light.
    color = mix(color, mix(tint.rgb, vec3(1.0), lightOf(color)), tint.a);
#endif
    gl_FragColor = vec4(color, opacity);
  }`;

/**
 * What tiles are drawn with. A program is made for each way of showing, so that a frame pays only for what it shows: where there is no
 * graphics card, a branch that is not taken costs a quarter of the time, and a pixel that may be thrown away as much again.
 */
export class PictureMaterials {
  private readonly uniforms = {
    contrast: { value: 1 },
    grey: { value: 0 },
    invert: { value: 0 },
    ink: { value: 0 },
    tint: { value: new Vector4(0, 0, 0, 0) },
    backing: { value: new Vector3(1, 1, 1) },
    clip: { value: new Vector3(0, 0, 0) },
    opacity: { value: 1 },
  };
  private readonly made = new Map<string, ShaderMaterial>();

  setLook({ contrast, grey, invert, ink, tint, backing }: PictureLook): void {
    const { uniforms } = this;
    uniforms.backing.value.set(...backing);
    uniforms.invert.value = invert ? 1 : 0;
    uniforms.ink.value = ink ?? 0;
    uniforms.tint.value.set(...(tint ?? [0, 0, 0]), tint ? 1 : 0);
    uniforms.contrast.value = contrast;
    uniforms.grey.value = grey ? 1 : 0;
  }

  /** The material of a pass: how much it covers, and the round part of the canvas it is kept to (middle and radius, canvas pixels). */
  of(opacity: number, round: readonly [number, number, number] | undefined): ShaderMaterial {
    this.uniforms.opacity.value = opacity;
    if (round) this.uniforms.clip.value.set(...round);
    const defines = { ...(this.uniforms.ink.value > 0 && { INK: '' }), ...(round && { ROUND: '' }) };
    const key = `${Object.keys(defines).join()} ${opacity < 1}`;
    const known = this.made.get(key);
    if (known) return known;
    const material = new ShaderMaterial({
      defines,
      uniforms: { ...this.uniforms, picture: { value: undefined as Texture | undefined } },
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      depthTest: false,
      depthWrite: false,
      side: DoubleSide,
      blending: opacity < 1 ? NormalBlending : NoBlending,
      transparent: opacity < 1,
    });
    this.made.set(key, material);
    return material;
  }

  close(): void {
    for (const material of this.made.values()) material.dispose();
  }
}
