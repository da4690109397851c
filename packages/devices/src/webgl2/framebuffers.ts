import type { GlTexture } from './resources';

/** The part of a texture that is drawn into. */
export interface TexturePart {
  readonly level: number;
  readonly face: number;
}
const WHOLE: TexturePart = { level: 0, face: 0 };

interface Entry extends TexturePart {
  readonly colour?: GlTexture;
  readonly depth?: GlTexture;
  readonly framebuffer: WebGLFramebuffer;
}

/** Framebuffers by what is attached to them, made when first asked for. */
export class Framebuffers {
  private readonly entries: Entry[] = [];

  constructor(private readonly gl: WebGL2RenderingContext) {}

  find(colour?: GlTexture, depth?: GlTexture, part: TexturePart = WHOLE): WebGLFramebuffer {
    const same = (entry: Entry): boolean => entry.level === part.level && entry.face === part.face;
    const known = this.entries.find((entry) => entry.colour === colour && entry.depth === depth && same(entry));
    if (known) return known.framebuffer;
    const { gl } = this;
    const framebuffer = gl.createFramebuffer();
    gl.bindFramebuffer(gl.FRAMEBUFFER, framebuffer);
    if (colour) this.attach(gl.COLOR_ATTACHMENT0, colour, part);
    else gl.drawBuffers([gl.NONE]);
    if (depth) this.attach(gl.DEPTH_ATTACHMENT, depth, WHOLE);
    this.entries.push({ colour, depth, ...part, framebuffer });
    return framebuffer;
  }

  /** Lets go of every framebuffer that a texture is attached to. */
  release(texture: GlTexture): void {
    for (let index = this.entries.length - 1; index >= 0; index--) {
      const entry = this.entries[index];
      if (entry?.colour !== texture && entry?.depth !== texture) continue;
      this.gl.deleteFramebuffer(entry.framebuffer);
      this.entries.splice(index, 1);
    }
  }

  private attach(point: GLenum, { texture, renderbuffer, cube }: GlTexture, { level, face }: TexturePart): void {
    const { gl } = this;
    const side = cube ? gl.TEXTURE_CUBE_MAP_POSITIVE_X + face : gl.TEXTURE_2D;
    if (texture) gl.framebufferTexture2D(gl.FRAMEBUFFER, point, side, texture, level);
    else gl.framebufferRenderbuffer(gl.FRAMEBUFFER, point, gl.RENDERBUFFER, renderbuffer ?? null);
  }
}
