/** A piece of code to begin with; `${…}` marks what is to be filled in, in order. */
export interface Snippet {
  readonly label: string;
  readonly help: string;
  readonly text: string;
}

export const SNIPPETS: readonly Snippet[] = [
  {
    label: 'number parameter',
    help: 'A number with a range, as a control in the parameters panel.',
    text: '/** ${Title}: ${what it does}. @value ${0.5} in ${0..1} */\nuniform float ${name};\n',
  },
  {
    label: 'colour parameter',
    help: 'A colour, as a control in the parameters panel.',
    text: '/** ${Title}: ${what it does}. @colour ${#f0b497} */\nuniform vec3 ${name};\n',
  },
  {
    label: 'choice parameter',
    help: 'One of several words.',
    text: '/** ${Title}: ${what it does}. @of ${plain|striped} @value 0 */\nuniform int ${name};\n',
  },
  {
    label: 'image parameter',
    help: 'An image, chosen in the parameters panel.',
    text: '/** ${Title}: ${what it shows}. */\nuniform sampler2D ${name};\n',
  },
  {
    label: 'paint with light',
    help: 'The pixel stage, as light with its terms held apart.',
    text: 'Lit paint(Surface s) {\n  return ${blinnPhong(vec3(0.6), vec3(0.3), 32.0, s.normal, s.toEye)};\n}\n',
  },
  {
    label: 'paint a colour',
    help: 'The pixel stage, as a colour that shines by itself.',
    text: 'vec4 paint(Surface s) {\n  return vec4(${s.normal * 0.5 + 0.5}, 1.0);\n}\n',
  },
  {
    label: 'shape',
    help: 'Moves the vertices; normals follow.',
    text: 'void shape(inout Shape s) {\n  s.position += s.normal * ${0.1 * sin(stageTime())};\n}\n',
  },
  {
    label: 'light by hand',
    help: 'Goes over the lights of the rig, one by one.',
    text: 'for (int i = 0; i < lightsInUse(); i++) {\n  LightHere light = lightHere(i);\n  ${sum += light.colour * light.shadow * max(dot(s.normal, light.toLight), 0.0);}\n}\n',
  },
  { label: 'toon step', help: 'A cosine in flat steps.', text: 'float ${steps} = floor(${cosine} * ${3.0}) / ${3.0};\n' },
  { label: 'counted loop', help: 'Goes round a known number of times.', text: 'for (int ${i} = 0; ${i} < ${8}; ${i}++) {\n  ${}\n}\n' },
];
