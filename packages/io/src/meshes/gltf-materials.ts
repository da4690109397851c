import type { Material, Texture, TextureInfo } from '@gltf-transform/core';
import type {
  Anisotropy,
  Clearcoat,
  Dispersion,
  EmissiveStrength,
  IOR,
  Iridescence,
  Sheen,
  Specular,
  Transform,
  Transmission,
  Volume,
} from '@gltf-transform/extensions';
import { PLAIN_IMPORT, type ImportedMap, type ImportedMaterial } from '@brelvin/core';

const WRAPS: Readonly<Record<number, ImportedMap['wrapX']>> = { 10497: 'repeat', 33648: 'mirror', 33071: 'clamp' };
/** NEAREST, without or with mips. */
const SHARP = new Set([9728, 9984, 9986]);

type Features = Record<string, Record<string, number | readonly number[]>>;

/** Materials of a glTF file with the numbers of its textures. */
export class GltfMaterials {
  readonly textures: Texture[] = [];
  readonly words = new Set<string>();

  read(material: Material): ImportedMaterial {
    const [red = 1, green = 1, blue = 1, alpha = 1] = material.getBaseColorFactor();
    const mode = material.getAlphaMode();
    const name = material.getName() || 'Material';
    const specular = material.getExtension<Specular>('KHR_materials_specular');
    const transmission = material.getExtension<Transmission>('KHR_materials_transmission');
    return {
      ...PLAIN_IMPORT,
      name,
      baseColour: [red, green, blue],
      opacity: alpha,
      metallic: material.getMetallicFactor(),
      roughness: material.getRoughnessFactor(),
      normalScale: material.getNormalScale(),
      occlusionStrength: material.getOcclusionStrength(),
      emission: material.getEmissiveFactor(),
      emissionStrength: material.getExtension<EmissiveStrength>('KHR_materials_emissive_strength')?.getEmissiveStrength() ?? 1,
      alpha: mode === 'MASK' ? 'cut' : mode === 'BLEND' ? 'blend' : 'opaque',
      cutoff: material.getAlphaCutoff(),
      doubleSided: material.getDoubleSided(),
      unlit: material.getExtension('KHR_materials_unlit') !== null,
      features: this.features(material, name),
      maps: {
        baseColour: this.map(material.getBaseColorTexture(), material.getBaseColorTextureInfo(), name),
        metallicRoughness: this.map(material.getMetallicRoughnessTexture(), material.getMetallicRoughnessTextureInfo(), name),
        normal: this.map(material.getNormalTexture(), material.getNormalTextureInfo(), name),
        occlusion: this.map(material.getOcclusionTexture(), material.getOcclusionTextureInfo(), name),
        emission: this.map(material.getEmissiveTexture(), material.getEmissiveTextureInfo(), name),
        specularColour: this.map(specular?.getSpecularColorTexture(), specular?.getSpecularColorTextureInfo(), name),
        transmission: this.map(transmission?.getTransmissionTexture(), transmission?.getTransmissionTextureInfo(), name),
      },
    };
  }

  /** Which features of the physical surface the KHR extensions ask for, with their numbers. */
  private features(material: Material, name: string): Features {
    const found: Features = {};
    const coat = material.getExtension<Clearcoat>('KHR_materials_clearcoat');
    if (coat) {
      found['hasCoat'] = { coat: coat.getClearcoatFactor(), coatRoughness: coat.getClearcoatRoughnessFactor() };
      this.leftOut(name, 'clear coat', coat.getClearcoatTexture(), coat.getClearcoatRoughnessTexture(), coat.getClearcoatNormalTexture());
    }
    const sheen = material.getExtension<Sheen>('KHR_materials_sheen');
    if (sheen) {
      found['hasSheen'] = { sheenColour: sheen.getSheenColorFactor(), sheenRoughness: sheen.getSheenRoughnessFactor() };
      this.leftOut(name, 'sheen', sheen.getSheenColorTexture(), sheen.getSheenRoughnessTexture());
    }
    const ior = material.getExtension<IOR>('KHR_materials_ior');
    const specular = material.getExtension<Specular>('KHR_materials_specular');
    const index: Record<string, number> = ior ? { ior: ior.getIOR() } : {};
    if (specular ?? ior) {
      found['hasSpecular'] = {
        ...index,
        specular: specular?.getSpecularFactor() ?? 1,
        specularColour: specular?.getSpecularColorFactor() ?? [1, 1, 1],
      };
      if (specular) this.leftOut(name, 'highlight strength', specular.getSpecularTexture());
    }
    const brushed = material.getExtension<Anisotropy>('KHR_materials_anisotropy');
    if (brushed) {
      found['hasAnisotropy'] = { anisotropy: brushed.getAnisotropyStrength(), grooves: brushed.getAnisotropyRotation() };
      this.leftOut(name, 'grooves', brushed.getAnisotropyTexture());
    }
    const film = material.getExtension<Iridescence>('KHR_materials_iridescence');
    if (film) {
      found['hasIridescence'] = {
        iridescence: film.getIridescenceFactor(),
        filmIor: film.getIridescenceIOR(),
        filmThickness: film.getIridescenceThicknessMaximum(),
      };
      this.leftOut(name, 'film', film.getIridescenceTexture(), film.getIridescenceThicknessTexture());
    }
    const glass = material.getExtension<Transmission>('KHR_materials_transmission');
    if (glass) found['hasTransmission'] = { ...index, transmission: glass.getTransmissionFactor() };
    const body = material.getExtension<Volume>('KHR_materials_volume');
    if (glass && body) {
      const distance = body.getAttenuationDistance();
      found['hasVolume'] = {
        thickness: body.getThicknessFactor(),
        absorbed: body.getAttenuationColor(),
        absorbedAt: Number.isFinite(distance) ? distance : 0,
      };
      this.leftOut(name, 'thickness', body.getThicknessTexture());
    }
    const prism = material.getExtension<Dispersion>('KHR_materials_dispersion');
    if (glass && prism) found['hasDispersion'] = { dispersion: prism.getDispersion() };
    return found;
  }

  private leftOut(name: string, what: string, ...textures: readonly (Texture | null)[]): void {
    if (textures.some((each) => each !== null))
      this.words.add(`The maps of the ${what} of “${name}” were left out; its numbers came along.`);
  }

  private map(texture: Texture | null | undefined, info: TextureInfo | null | undefined, name: string): ImportedMap | undefined {
    if (!texture || !info) return undefined;
    let image = this.textures.indexOf(texture);
    if (image < 0) image = this.textures.push(texture) - 1;
    const transform = info.getExtension<Transform>('KHR_texture_transform');
    const [x = 1, y = 1] = transform?.getScale() ?? [1, 1];
    const rotation = transform?.getRotation() ?? 0;
    if (rotation !== 0 && Math.abs(x - y) > 1e-6)
      this.words.add(`An image of “${name}” is turned and stretched unevenly; it may lie a little differently here.`);
    const uvSet = transform?.getTexCoord() ?? info.getTexCoord();
    if (uvSet > 1) this.words.add(`An image of “${name}” lies on UV set ${uvSet + 1}; only two come along, so it lies on the second.`);
    return {
      image,
      uvSet: Math.min(uvSet, 1),
      wrapX: WRAPS[info.getWrapS()] ?? 'repeat',
      wrapY: WRAPS[info.getWrapT()] ?? 'repeat',
      filter: SHARP.has(info.getMagFilter() ?? 0) ? 'sharp' : 'smooth',
      offset: transform?.getOffset() ?? [0, 0],
      scale: [x, y],
      rotation,
    };
  }
}
