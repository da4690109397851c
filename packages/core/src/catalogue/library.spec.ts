import { FRONT_FACING, PIXEL_PLACE } from '../ir/builtin-variables';
import { evaluateCall, NotEvaluable } from '../ir/evaluate';
import { FLOAT, INT, sameType, type Type } from '../ir/types';
import { isArrayValue, isStruct, type Value } from '../ir/value';
import { oneLight } from '../testing/call-shader';
import { library, libraryProgram, vertexProgram } from './library';
import { MalformedKind, readKind } from './read-kind';
import { withoutImages } from '../testing/without-images';
import { elaborate } from '../language';
import { SHADER_SOURCES } from './shader-sources.generated';

const PROMISED_KINDS =
  'uvTransform gradientOfColours number vector onOff oneMinus negate lightDirection nDotL halfVector nDotH frontFacing circleDistance boxDistance cubeImage weldedNormal displaceByHeight normalFromHeightMap triplanar triplanarNormal occlusionStrength occludeLight roughnessFromGloss exponentFromGloss position normal viewDirection uv place fromMiddle time facing split combine add subtract multiply divide mix step smoothstep clamp remap dot normalize length sine power colour gradient luminance sun lambert blinnPhong bands rim parameter group image secondUv copyIndex tangent oneLight wrapped orenNayar phong matchingExponent bandsByWidth bandsByPlace ramp rampImage hardSpot stretchedHighlight matcap normalAsColour halftone hatching thisLight lightFromTerms absolute sign floor ceil round fract quantise minimum maximum softMinimum softMaximum modulo repeat triangleWave squareRoot exponential logarithm cosine tangentOfAngle arcsine arccosine arctangent toRadians toDegrees compare choose cross distance reflect refract rotateAbout angleBetween project contrast saturation levels posterise invert tint hsvFromColour colourFromHsv lchFromColour colourFromLch mixAsSeen srgbEncode srgbDecode cosinePalette whiteNoise valueNoise gradientNoise cellularNoise fractalNoise ridgedNoise checker stripes grid dots brick rings fresnelSchlick fresnelDielectric fresnelConductor hexagons waves spiral distributionGgx visibilitySmith normalFromMap blendNormalMaps normalFromHeight offsetAlongNormal offsetByVector waveOffset wobbleOffset twistOffset bendOffset circlePath travellingPulse windOffset carry positionSpaces normalSpaces tangentSpaces viewDirectionSpaces changeSpace vertexColour screenPosition distanceToCamera partIndex randomByCopy pointerOver gradientSmooth gradientSteps gradientAsSeen temperature blend remapCurve reorder normalFlat bendNormal detailNormal simplexNoise warpedNoise flakes dissolve triangles lattice signedPower code sceneDepth sceneColour meetingGlow environmentAround environmentMirrored reflectivityFromIor iorFromReflectivity absorption thinFilm sheenLayer clearCoat seenThrough physicalSurface fieldUnion fieldIntersection fieldDifference fieldUnionRound fieldIntersectionRound fieldDifferenceRound fieldUnionChamfered fieldIntersectionChamfered fieldDifferenceChamfered fieldUnionStairs fieldIntersectionStairs fieldDifferenceStairs fieldUnionColumns fieldIntersectionColumns fieldDifferenceColumns fieldUnionGrooved fieldIntersectionGrooved fieldDifferenceGrooved fieldMorph fieldGrow fieldOnion fieldDisplace fieldRegion polygonDistance starDistance curveDistance extrude revolve sphereField ellipsoidField boxField boxFrameField planeField cylinderField cappedConeField coneField capsuleField torusField linkField prismField archField heightField spaceMoved spaceTurned spaceScaled spaceRepeated spaceRing spaceMirrored spaceTwisted spaceBent spaceStretched'.split(
    ' ',
  );

/** Awkward but finite numbers. */
const AWKWARD = [0, -0, 1, -1, 0.5, 1e-30, -1e-30, 1e9, -1e9, 2.5e-4];

function inputOf(type: Type, pick: () => number): Value {
  if (type.kind === 'array') return { items: Array.from({ length: type.length }, () => inputOf(type.element, pick)) };
  if (type.kind === 'struct') return { fields: Object.fromEntries(type.fields.map((field) => [field.name, inputOf(field.type, pick)])) };
  const count = type.kind === 'vector' ? type.size : 1;
  return Array.from({ length: count }, pick);
}

function allFinite(value: Value): boolean {
  if (isStruct(value)) return Object.values(value.fields).every(allFinite);
  if (isArrayValue(value)) return value.items.every(allFinite);
  return value.every(Number.isFinite);
}

describe('The shader library', () => {
  const { kinds, module } = library();

  it('has the kinds that are promised', () => {
    expect([...kinds.keys()].sort()).toEqual([...PROMISED_KINDS].sort());
  });

  for (const kind of kinds.values()) {
    it(`documents ${kind.id}: title, help, source, labels`, () => {
      expect(kind.title).toMatch(/^[A-Z]/);
      expect(kind.help.length).toBeGreaterThan(15);
      expect(kind.help).toMatch(/\.$/);
      expect(kind.source.length).toBeGreaterThan(10);
      for (const outlet of kind.outlets) expect(outlet.label).not.toBe('');
      for (const inlet of kind.inlets) if ('surface' in inlet.default) expect(kinds.has(inlet.default.surface)).toBeTrue();
    });
  }

  const globals = new Map([
    ...oneLight([0.3, 0.5, 0.8], [3, 2, 1], [0.1, 0.2, 0.3]),
    ['frameTime', [12.5]] as const,
    ['worldPosition', [0.1, 0.2, 0.3]] as const,
    ['worldTangent', [0, 0, 0, 1]] as const,
    ['worldNormal', [0, 0, 0]] as const,
    ['worldWelded', [0, 0, 0]] as const,
    ['meshUv', [0.5, 0.5]] as const,
    ['meshPlace', [0, 0.5, 1]] as const,
    ['placeScale', [0.5, 0, 2, 0]] as const,
    ['meshSecondUv', [0.25, 0.5]] as const,
    ['copyNumber', [3]] as const,
    ['placeRowX', [2, 0, 0, 1]] as const,
    ['placeRowY', [0, 0, 3, 2]] as const,
    ['placeRowZ', [0, -1, 0, 3]] as const,
    ['vertexTint', [0.2, 0.4, 0.6, 1]] as const,
    ['partDepth', [0, 1, 2, 0]] as const,
    ['eyePosition', [0, 0, 5, 1]] as const,
    [FRONT_FACING, [1]] as const,
    [PIXEL_PLACE, [10.5, 20.5, 0.5, 1]] as const,
  ]);
  const functions = withoutImages({ 'albedosAt(float,float)': [0.6, 0.1, 0.4], 'blurredThrough(vec2,float)': [0.5, 0.5, 0.5] });

  for (const kind of kinds.values()) {
    for (const overload of kind.overloads) {
      // Images are read on a device only; its pictures are tested there.
      if (
        overload.parameters.some((parameter) => parameter.type.kind === 'sampler') ||
        kind.id.startsWith('scene') ||
        kind.id === 'meetingGlow'
      )
        continue;
      it(`${overload.signature} stays finite for awkward numbers`, () => {
        let turn = 0;
        for (let round = 0; round < 60; round++) {
          const pick = (): number => AWKWARD[(turn = (turn * 7 + 3 + round) % 97) % AWKWARD.length] ?? 0;
          // A whole number is a light's, which the compiler gives.
          const args = overload.parameters.map(({ type }) => (type === INT ? [round % 8] : inputOf(type, pick)));
          const { result } = evaluateCall(overload, args, { functions, globals });
          expect(allFinite(result)).withContext(JSON.stringify(args)).toBeTrue();
        }
      });
    }
  }

  it('says when a value needs a device', () => {
    const declared = module.functions.get('surfaceUv()');
    expect(() => evaluateCall(declared!, [], { functions: module.functions })).toThrowError(NotEvaluable);
  });

  it('keeps every program free of errors', () => {
    const programs = SHADER_SOURCES.filter(([path]) => path.startsWith('programs/')).map(([path]) => path.slice(9, -5));
    expect(programs.length).toBeGreaterThan(3);
    const forMeshes = ['surface.vert', 'outline.vert', 'shadow.vert', 'wires.vert', 'code.vert', 'field_box.vert', 'field_caster.vert'];
    for (const program of programs)
      expect(() => (forMeshes.includes(program) ? vertexProgram(program) : libraryProgram(program))).not.toThrow();
    expect(() => libraryProgram('nothing')).toThrowError(RangeError);
  });
});

describe('readKind', () => {
  const read = (comment: string): unknown => {
    const { documentation, module } = elaborate('kind', `/** ${comment} */ float f(float a) { return a; }`);
    const [signature] = documentation.keys();
    return readKind(documentation.get(signature!)!, [module.functions.get(signature!)!]);
  };
  const head = 'Title: some help for it.\n@kind k 1\n@family F\n@source S\n';

  it('puts what the compiler gives behind what ribbons bring', () => {
    const given = `${head}@given a\n@outlet result number "Result"`;
    expect(() => read(given)).not.toThrow();
    expect(() => read(given.replace('@given a', '@given b'))).toThrowError(MalformedKind);
  });

  it('reads an inlet with range and unit', () => {
    const kind = read(`${head}@inlet a number "A" = 0.5 in 0..2 unit radians: words\n@outlet result number "R"`) as ReturnType<
      typeof readKind
    >;
    expect(kind?.inlets[0]).toEqual({
      name: 'a',
      label: 'A',
      meaning: 'number',
      default: { value: [0.5] },
      low: 0,
      high: 2,
      unit: 'radians',
      choices: undefined,
      help: 'words',
    });
    expect(sameType(kind!.overloads[0]!.result, FLOAT)).toBeTrue();
  });

  it('reads a choice with what its numbers stand for', () => {
    const kind = read(`${head}@inlet a choice "A" = 1 of one thing|another: words\n@outlet result number "R"`) as ReturnType<
      typeof readKind
    >;
    expect(kind?.inlets[0]).toEqual(
      jasmine.objectContaining({
        meaning: 'choice',
        choices: ['one thing', 'another'],
        default: { value: [1] },
        low: 0,
        high: 1,
        help: 'words',
      }),
    );
  });

  it('is not interested in comments that make no node', () => {
    expect(read('Just a function.')).toBeUndefined();
  });

  const mistakes: readonly (readonly [string, RegExp])[] = [
    [`${head}@outlet result number "R"`, /inlets must be a/],
    [`${head}@inlet b number "B" = 0\n@outlet result number "R"`, /inlets must be a/],
    [`${head}@inlet a number "A"\n@outlet result number "R"`, /@inlet/],
    [`${head}@inlet a nonsense "A" = 0\n@outlet result number "R"`, /@inlet/],
    [`${head}@inlet a choice "A" = 0\n@outlet result number "R"`, /@inlet/],
    [`${head}@inlet a number "A" = 0 of one|two\n@outlet result number "R"`, /@inlet/],
    [`${head}@inlet a number "A" = 0`, /outlets must be result/],
    ['Title: help.\n@kind k 1\n@inlet a number "A" = 0\n@outlet result number "R"', /@family is missing/],
    ['Title: help.\n@kind k\n@family F\n@source S\n@inlet a number "A" = 0\n@outlet result number "R"', /revision/],
  ];
  for (const [comment, words] of mistakes) {
    it(`refuses a comment: ${words.source}`, () => {
      expect(() => read(comment)).toThrowError(MalformedKind, words);
    });
  }
});
