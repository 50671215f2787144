// Lines of shows as people write them. Each lot was scored before the words were mended for it: of the first 9 of 23
// were read right and one wrongly, of the second 2 of 15 and one wrongly. Null: to be refused.
export const SHOW_LINES: readonly (readonly [line: string, read: string | null])[] = [
  [
    'Opening, 120, 4/4, 64 bars, fill at bar 16, fill at bar 32',
    'Opening, 120, 4/4, straight, 64 bars, fill 16 whole, fill 32 whole',
  ],
  ['Rope Trick 88bpm 3/4 24 bars', 'Rope Trick, 88, 3/4, straight, 24 bars'],
  ['Harbour March - 112 - 2/4 - fill 8', 'Harbour March, 112, 2/4, straight, 32 bars, fill 8 whole'],
  [
    'Gull Song, tempo 140, swing, 48 bars, fills in 8, 16 and 24',
    'Gull Song, 140, 4/4, swung eighths 66%, 48 bars, fill 8 whole, fill 16 whole, fill 24 whole',
  ],
  ['Low Tide, 66, 6/8, 20 bars, ballad', 'Low Tide, 66, 6/8, straight, 20 bars, "ballad"'],
  ['Second Watch, 152, cut time, 80 bars, fill last bar', 'Second Watch, 152, 2/2, straight, 80 bars, fill 80 whole'],
  [
    'Tar and Feather, 4/4, q=98, 40 bars, half bar fill in 16',
    'Tar and Feather, 98, 4/4, straight, 40 bars, fill 16:3',
  ],
  ['Slack Water (96), 32 bars, fill 8 beat 4', 'Slack Water, 96, 4/4, straight, 32 bars, fill 8:4'],
  ['Lantern Reprise, 72, 16 bars, fill 16 beats 3-4', 'Lantern Reprise, 72, 4/4, straight, 16 bars, fill 16:3'],
  ['Kelp, 100, 7/8 (2+2+3), 28 bars, fill bar 14', 'Kelp, 100, 7/8, straight, 28 bars, fill 14 whole'],
  [
    'Old Salt, 104, straight eighths, 36 bars, fill 12 and of 3 to end',
    'Old Salt, 104, 4/4, straight on eighths, 36 bars, fill 12:3&',
  ],
  [
    'Nets Again, 88, groove Net menders, 24 bars, fill 24 whole',
    'Nets Again, 88, 4/4, straight, 24 bars, groove: "Net menders", fill 24 whole',
  ],
  ['Anchor, 126 BPM, triplet feel, 40 bars', 'Anchor, 126, 4/4, straight on triplets, 40 bars'],
  [
    'Bilge, 90, 5/4, 30 bars, fill 10:4-5, note watch the conductor',
    'Bilge, 90, 5/4, straight, 30 bars, fill 10:4, "watch the conductor"',
  ],
  [
    'Jetsam, 132, 12/8 shuffle, 16 bars, 2 bar fill from 15',
    'Jetsam, 132, 12/8, swung eighths 66%, 16 bars, fill 15-16',
  ],
  ['Ebb, 60, 8 bars, fill 8: 3', 'Ebb, 60, 4/4, straight, 8 bars, fill 8:3'],
  ['Flow, 60, 8 bars, FILL 8:3 - 4', 'Flow, 60, 4/4, straight, 8 bars, fill 8:3'],
  ['Bell Buoy, 108, 16ths, 32 bars, lick 12:2&-3', 'Bell Buoy, 108, 4/4, straight on 16ths, 32 bars, lick 12:2&-3'],
  ["Crow's Nest, 94, 4/4, 32 bars, fill 31-32", "Crow's Nest, 94, 4/4, straight, 32 bars, fill 31-32"],
  ['Mizzen, 94, 4/4, bars 32, fill 16', 'Mizzen, 94, 4/4, straight, 32 bars, fill 16 whole'],
  ['Spar, 94, 4/4, 32, fill 16', 'Spar, 94, 4/4, straight, 32 bars, fill 16 whole'],
  ['Yard, 144, 4/4, 1:30, fill 16', 'Yard, 144, 4/4, straight, 54 bars, fill 16 whole'],
  ['Driftwood — 118 — 4/4 — fill into bar 9', 'Driftwood, 118, 4/4, straight, 32 bars, fill 8 whole'],
  ['Cork, 76 bpm, slow 6/8, 32 bars, fill 16:2 hits 2a', 'Cork, 76, 6/8, straight, 32 bars, fill 16:2 hits 2a, "slow"'],
  [
    'Buoy Dance 132 (3/4), 60 bars, fill 58-60 landing on the crash',
    'Buoy Dance, 132, 3/4, straight, 60 bars, fill 58-60 lands crash',
  ],
  ['Sextant, 92 to 96, 40 bars', null],
  ['Fathom, 84, 4/4, 40 bars, drum fill bar 8 (beat 3 and 4)', 'Fathom, 84, 4/4, straight, 40 bars, fill 8:3'],
  [
    'Keel, 110, funk, 16th feel, 32 bars, fill every 8 bars',
    'Keel, 110, 4/4, straight on 16ths, 32 bars, fill 8 whole, fill 16 whole, fill 24 whole, fill 32 whole, "funk"',
  ],
  [
    'Halyard, 150, fast swing, AABA, 32 bars, fill 32:3',
    'Halyard, 150, 4/4, swung eighths 66%, 32 bars, fill 32:3, "fast swing AABA"',
  ],
  ['Tiller, 100, 4/4 straight 8ths, 2 min, fill 20', 'Tiller, 100, 4/4, straight on eighths, 50 bars, fill 20 whole'],
  ['Ballast / 95 / 4/4 / 32 bars / fill 16', 'Ballast, 95, 4/4, straight, 32 bars, fill 16 whole'],
  [
    'Capstan, 120 bpm, 9/8 (2+2+2+3), 18 bars, fill 18 last beat',
    'Capstan, 120, 9/8 2+2+2+3, straight, 18 bars, fill 18:9',
  ],
  ['Windlass, 105, 4/4, verse 16 bars, chorus 16 bars', null],
  ['Scupper, 97, 32bars, fill:8', 'Scupper, 97, 4/4, straight, 32 bars, fill 8 whole'],
  [
    'Bowsprit, tempo: 102, meter: 5/4, bars: 20, fill: 10 whole',
    'Bowsprit, 102, 5/4, straight, 20 bars, fill 10 whole',
  ],
  [
    'Gunwale, 128, 4/4, 32 bars, short fill bar 16 on 4, groove 17-32',
    'Gunwale, 128, 4/4, straight, 32 bars, fill 16:4, groove 17-32',
  ],
];
