/** Every key, as the card shows it and docs/keys.md lists it. */
export const keys: { group: string; list: [string, string][] }[] = [
  {
    group: 'Listening',
    list: [
      ['Space', 'Play, stop (a second stop cuts the tails)'],
      ['Home', 'Playhead to the beginning'],
      ['L', 'Loop the range drawn on the ruler, or the section at the playhead; again ends it'],
      [', .', 'Playhead one bar back or on'],
      ['M', 'Main output in mono, or not'],
      ['Z', 'Soundings: what was noticed'],
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
      ['Shift Ctrl click', 'On names: select rows together'],
      ['S', 'Send the selected rows to a return, also a new one'],
      ['A', 'Gather the selected rows in a group'],
      ['D', 'Hear the row without its returns; with Shift only what comes back; Esc ends it'],
      ['T', 'Trace the row to the main output, or to the second selected row'],
    ],
  },
  {
    group: 'Stages',
    list: [
      ['/', 'List of effects; Enter adds, Shift Enter adds switched off'],
      ['Enter', 'From the stage to its scales; Esc leads back'],
      ['← →', 'Along the signal, into a fork and out of it; Shift: several stages'],
      ['Alt ← →', 'Move the stage earlier or later'],
      ['B', 'Bypass what is selected; with Shift the whole chain'],
      ['R', 'Replace the stage where it stands'],
      ['U', 'Duplicate the stage'],
      ['I', 'Keep the stage on the bench beside the next, or not'],
      ['W', 'Presets of the stage or fork; with Shift of the chain'],
      ['J', 'Hear the chain up to here; with Shift only what the stage changes; Esc ends it'],
      ['Ctrl C X V', 'Copy, cut, paste stages, also to another project'],
      ['Delete', 'Remove what is selected'],
    ],
  },
  {
    group: 'Forks',
    list: [
      ['F', 'The selected stages become a path beside a dry one that is off'],
      ['↑ ↓', 'On a path: across the paths; above the first, the fork itself'],
      ['V', 'Listen to the selected path alone; with Shift besides others; Esc ends it'],
      ['B', 'On a path: mute it'],
      ['U Delete', 'On a path: duplicate it, remove it'],
      ['Alt ↑ ↓', 'On a path: move it among the others'],
    ],
  },
  {
    group: 'Lines',
    list: [
      [
        'X',
        'Open or fold the lines of the row; on a scale: its line; with Shift: a line for anything of the row',
      ],
      ['M', 'On a scale: all that moves it: line, handle, movers'],
      ['Double click', 'Put a point; Alt leaves the grid'],
      [
        'Drag',
        'A point moves, with Ctrl in its value only; moved along it keeps its value, unless with Alt; between points it selects a stretch, with Shift a box; with Alt it bends',
      ],
      ['↑ ↓', 'Selected points up or down; Shift: a tenth'],
      ['Ctrl A', 'Select the stretch, or all, of every open line of the row: its points move as one'],
      ['Ctrl C V', 'Copy the selected points, of all lines; put them down at the playhead'],
      ['Delete', 'Take the selected points off'],
    ],
  },
  {
    group: 'Clips',
    list: [
      ['Drag', 'Move it along its row; Alt leaves the grid, with Ctrl it is a copy'],
      ['← →', 'On a clip: a step of the grid'],
      ['Delete', 'Remove the clip'],
    ],
  },
  {
    group: 'Passages',
    list: [
      ['Shift L', 'Make a passage of the range on the ruler, on the selected rows'],
      ['← →', 'On a passage in the ruler: a step of the grid earlier or later; Shift: its end only'],
      ['Double click', 'In a course: put a point; on a point with Alt: another shape'],
      ['Delete', 'Remove the passage with all that it brought; on a point: the point'],
    ],
  },
  {
    group: 'Trials',
    list: [
      ['O', 'Keep the same stages in another order; with Shift a copy'],
      ['Y', 'Hear the next trial; with Shift the one before'],
    ],
  },
  {
    group: 'Scales',
    list: [
      ['← →', 'One step; Shift: a tenth; Page keys: ten'],
      ['Enter', 'Type a value'],
      ['0', 'To 0 dB'],
      ['Backspace', 'Reset'],
      ['Wheel', 'One step, while the scale has the focus'],
      ['Ctrl C V', 'Copy or paste the value'],
    ],
  },
  {
    group: 'View',
    list: [
      ['1 2 3', 'Low, mid, high tide'],
      ['+ −', 'Higher or lower rows'],
      ['[ ]', 'Zoom out or in'],
      ['K', 'Fold the bench away'],
      ['E', 'Clear held levels and marks of what went over'],
      ['Shift E', 'Depth figures as peaks or as mean levels'],
      ['G', 'Day chart or night chart'],
      ['Ctrl Z', 'Undo your own last change; with Shift redo'],
      ['?', 'This card'],
    ],
  },
]
