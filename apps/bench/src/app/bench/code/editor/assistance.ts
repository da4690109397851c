import {
  autocompletion,
  snippetCompletion,
  type Completion as Option,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import type { Extension } from '@codemirror/state';
import { hoverTooltip, type EditorView } from '@codemirror/view';
import { SNIPPETS, type Completion, type Origin, type TextRole } from '@brelvin/core';
import type { Assist } from '../../compile/compiler';

const WORDS: Readonly<Record<Completion['kind'], string>> = {
  variable: 'variable',
  parameter: 'parameter',
  function: 'function',
  'built-in': 'built in',
  field: '',
  type: 'type',
  word: 'word',
  'from the Library': 'Library',
};

/** What completion and hovering need to know of the editor. */
export interface AssistedEditor {
  readonly assist: Assist;
  readonly role: () => TextRole;
  /** Shows where something is declared. */
  readonly open: (place: Origin) => void;
}

/** Completion while typing, and what a name means under the pointer. */
export function assistance(editor: AssistedEditor): Extension {
  return [
    autocompletion({
      override: [(context) => complete(editor, context)],
      icons: false,
      activateOnTypingDelay: 60,
      optionClass: () => 'code-option',
      addToOptions: [
        { render: (option) => element('span', 'code-option-kind', (option as Option & { word?: string }).word ?? ''), position: 90 },
      ],
    }),
    hoverTooltip((view, at) => hover(editor, view, at), { hoverTime: 350 }),
  ];
}

async function complete({ assist, role }: AssistedEditor, context: CompletionContext): Promise<CompletionResult | null> {
  const text = context.state.doc.toString();
  const typed = context.matchBefore(/[A-Za-z_]\w*|\./);
  if (!typed && !context.explicit) return null;
  const found = await assist.completions(text, role(), context.pos);
  if (!found || context.aborted) return null;
  const options = found.options.map((each): Option & { word: string } => ({
    label: each.label,
    detail: each.detail === each.label ? '' : each.detail,
    boost: each.rank * 8,
    word: WORDS[each.kind],
    info: each.help ? () => element('div', 'code-help', each.help) : undefined,
    type: each.kind,
  }));
  const starts = /^[ \t]*\w*$/.test(
    context.state.doc.lineAt(context.pos).text.slice(0, context.pos - context.state.doc.lineAt(context.pos).from),
  );
  const pieces = starts
    ? SNIPPETS.map((each) =>
        snippetCompletion(each.text, {
          label: each.label,
          detail: 'piece of code',
          info: () => element('div', 'code-help', each.help),
          boost: -20,
        }),
      )
    : [];
  return { from: found.from, options: [...options, ...pieces], validFor: /^\w*$/ };
}

async function hover({ assist, role, open }: AssistedEditor, view: EditorView, at: number) {
  const help = await assist.help(view.state.doc.toString(), role(), at);
  if (!help) return null;
  return {
    pos: help.from,
    end: help.to,
    above: true,
    create: () => {
      const dom = element('div', 'code-help');
      dom.append(...help.signatures.map((each) => element('code', 'code-signature', each)));
      if (help.help) dom.append(element('p', '', help.help));
      if (help.source) dom.append(element('p', 'hint', `Source: ${help.source}`));
      const { declared } = help;
      if (declared?.range) {
        const button = element('button', 'text-button', 'Where it is written');
        button.addEventListener('click', () => open(declared));
        dom.append(button);
      }
      return { dom };
    },
  };
}

function element<K extends keyof HTMLElementTagNameMap>(tag: K, className: string, text = ''): HTMLElementTagNameMap[K] {
  const made = document.createElement(tag);
  made.className = className;
  made.textContent = text;
  return made;
}
