/**
 * A rule for the linter: what is pressed is read aloud by the name that stands on it. A person who works by voice says what
 * they see, so an `aria-label` must hold the visible words; it may say more ("Record" and "Record float height").
 *
 * Looks at literal words only: words that are worked out are looked at in the browser (tests/e2e/pages.spec.ts).
 */
const pressed = new Set(['a', 'button', 'summary', 'BareButton', 'Button', 'Link', 'LinkButton', 'NavLink']);

const plain = (text) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Every way an expression may read, as its literal words; null stands for words that are worked out. */
function readings(node) {
  switch (node.type) {
    case 'JSXExpressionContainer':
      return readings(node.expression);
    case 'Literal':
      return [String(node.value)];
    case 'ConditionalExpression':
      return [...readings(node.consequent), ...readings(node.alternate)];
    case 'LogicalExpression':
      return readings(node.right);
    case 'TemplateLiteral':
      return node.quasis.reduce(
        (ways, quasi, i) => {
          const between = i === 0 ? [''] : readings(node.expressions[i - 1]).map((way) => way ?? ' ');
          return ways.flatMap((way) => between.map((words) => way + words + quasi.value.cooked));
        },
        [''],
      );
    default:
      return [null];
  }
}

/** The words an element begins with, in each way it may read; empty when they are worked out. */
function beginnings(children) {
  for (const child of children) {
    if (child.type === 'JSXText' && plain(child.value) !== '') return [child.value];
    if (child.type === 'JSXExpressionContainer' && child.expression.type !== 'JSXEmptyExpression') {
      const ways = readings(child);
      return ways.filter((way) => way !== null && plain(way) !== '');
    }
    if (child.type === 'JSXElement' && child.children.length > 0) return beginnings(child.children);
  }
  return [];
}

const spokenNames = {
  meta: {
    type: 'problem',
    schema: [],
    messages: { other: '“{{shown}}” stands on it, and it is read aloud as “{{name}}”.' },
  },
  create: (context) => ({
    JSXElement({ openingElement: { name, attributes }, children }) {
      if (!pressed.has(name.name)) return;
      const label = attributes.find((one) => one.name?.name === 'aria-label')?.value;
      if (!label) return;
      const names = readings(label).filter((way) => way !== null);
      if (names.length === 0) return;
      for (const shown of beginnings(children))
        if (!names.some((way) => plain(way).includes(plain(shown))))
          context.report({
            node: label,
            messageId: 'other',
            data: { shown: shown.trim(), name: names.join('” or “') },
          });
    },
  }),
};

export default { meta: { name: 'bench' }, rules: { 'spoken-names': spokenNames } };
