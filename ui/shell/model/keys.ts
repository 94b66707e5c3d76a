/** The keys of each screen, as they are shown when somebody asks for them with a question mark. */

export interface KeyLine {
  press: readonly string[];
  words: string;
}
export interface KeyGroup {
  title: string;
  /** the beginning of the addresses where these hold; null for everywhere */ on: string | null;
  lines: readonly KeyLine[];
}

export const keyGroups: readonly KeyGroup[] = [
  {
    title: 'On the shelves',
    on: '/shelves',
    lines: [
      { press: ['←', '→', '↑', '↓'], words: 'walk along the spines' },
      { press: ['Home', 'End'], words: 'to the first and the last' },
      { press: ['Enter'], words: 'open the item' },
      { press: ['R'], words: 'set your ribbon, or take it off' },
      { press: ['Space'], words: 'choose, or put back' },
      { press: ['Shift Space'], words: 'choose all from the last that was chosen to here' },
      { press: ['Ctrl A'], words: 'choose all that was found' },
      { press: ['Alt ←', 'Alt →'], words: 'move the spine along its shelf' },
    ],
  },
  {
    title: 'On the bench',
    on: '/bench',
    lines: [
      { press: ['←', '→', '↑', '↓'], words: 'walk from cell to cell' },
      { press: ['Enter'], words: 'see the cell large' },
      { press: ['+', '−'], words: 'more or less strength' },
      { press: ['R'], words: 'make the column the reference' },
      { press: ['D'], words: 'differences, or pictures' },
      { press: ['C'], words: 'choose or judge' },
      { press: ['Delete'], words: 'take the column off' },
    ],
  },
  {
    title: 'Seen large, on the bench',
    on: '/bench',
    lines: [
      { press: ['1', '0'], words: 'full size, or whole' },
      { press: ['W'], words: 'wipe between two' },
      { press: ['Space'], words: 'hold to see the frame as it is' },
      { press: ['←', '→', '↑', '↓'], words: 'move the picture' },
      { press: ['Esc'], words: 'close' },
    ],
  },
  {
    title: 'While a neutral is picked',
    on: '/bench',
    lines: [
      { press: ['←', '→', '↑', '↓'], words: 'move the mark; with Shift further' },
      { press: ['Enter'], words: 'pick it' },
      { press: ['Esc'], words: 'cancel' },
    ],
  },
  {
    title: 'On an item',
    on: '/items',
    lines: [{ press: ['Space'], words: 'on the picture: hold to see the original' }],
  },
  {
    title: 'Everywhere',
    on: null,
    lines: [
      { press: ['/'], words: 'find an item' },
      { press: ['Ctrl K'], words: 'go to an item, a screen or a task' },
      { press: ['F8'], words: 'to what was just said, with its Undo' },
      { press: ['?'], words: 'these keys' },
    ],
  },
];

/** Those that hold at an address, its own first. */
export const keysAt = (path: string): KeyGroup[] =>
  keyGroups.filter(({ on }) => on === null || path === on || path.startsWith(`${on}/`));
