import type { GlTexture } from './resources';

/** Framebuffers by what is attached to them, made when first asked for. */
export class Framebuffers {
  private readonly entries: { readonly colour?: GlTexture; readonly depth?: GlTexture; readonly framebuffer: WebGLFramebuffer }[] = [];

  constructor(private readonly gl: WebGL2RenderingContext) {}

  find(colour?: GlTexture, depth?: GlTexture): WebGLFramebuffer {
    const known = this.entries.find((entry) => entry.colour === colour && entry.depth === depth);
    if (known) return known.framebuffer;
    const { gl } = this;
    const framebuffer = gl.createFramebuffer();
    gl.bindFramebuffer(gl.FRAMEBUFFER, framebuffer);
    if (colour) this.attach(gl.COLOR_ATTACHMENT0, colour);
    else gl.drawBuffers([gl.NONE]);
    if (depth) this.attach(gl.DEPTH_ATTACHMENT, depth);
    this.entries.push({ colour, depth, framebuffer });
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

  private attach(point: GLenum, { texture, renderbuffer }: GlTexture): void {
    const { gl } = this;
    if (texture) gl.framebufferTexture2D(gl.FRAMEBUFFER, point, gl.TEXTURE_2D, texture, 0);
    else gl.framebufferRenderbuffer(gl.FRAMEBUFFER, point, gl.RENDERBUFFER, renderbuffer ?? null);
  }
}
