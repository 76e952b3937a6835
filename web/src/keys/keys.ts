/** Every key, as the card shows it and docs/keys.md lists it. */
export const keys: { group: string; list: [string, string][] }[] = [
  {
    group: 'Listening',
    list: [
      ['Space', 'Play, stop (a second stop cuts the tails)'],
      ['Home', 'Playhead to the beginning'],
      ['L', 'Loop the section at the playhead, or take the loop away'],
      [', .', 'Playhead one bar back or on'],
    ],
  },
  {
    group: 'Rows',
    list: [
      ['↑ ↓', 'Select the row above or below'],
      ['Alt ↑ ↓', 'Move the row up or down'],
      ['Q', 'Mute (quiet)'],
      ['H', 'Solo (hear); with Shift only this'],
      ['N', 'Name the selected stage or row'],
      ['C', 'Duplicate the row with everything on it'],
      ['P', 'Print the row to a new track'],
    ],
  },
  {
    group: 'Stages',
    list: [
      ['/', 'List of effects; Enter adds, Shift Enter adds switched off'],
      ['← →', 'Select the stage before or after'],
      ['Alt ← →', 'Move the stage earlier or later'],
      ['B', 'Bypass the stage; with Shift the whole chain'],
      ['R', 'Replace the stage where it stands'],
      ['U', 'Duplicate the stage'],
      ['Delete', 'Remove the stage'],
    ],
  },
  {
    group: 'Scales',
    list: [
      ['← →', 'One step; Shift: a tenth; Page keys: ten'],
      ['Enter', 'Type a value'],
      ['0', 'To 0 dB'],
      ['Backspace', 'Reset'],
    ],
  },
  {
    group: 'View',
    list: [
      ['1 2 3', 'Low, mid, high tide'],
      ['+ −', 'Higher or lower rows'],
      ['[ ]', 'Zoom out or in'],
      ['K', 'Fold the bench away'],
      ['G', 'Day chart or night chart'],
      ['Ctrl Z', 'Undo your own last change; with Shift redo'],
      ['?', 'This card'],
    ],
  },
]
