/** What can go otherwise than planned, by name in the log, with what it does to a trial and what a fair reviewer does. */
export const happenings = {
  missedWatering: {
    name: 'Watering missed',
    alike: 'All alike: means go down and spread goes up. Tell it, keep the values.',
    apart: 'Some alone: that is bias. Leave them out with a reason, so that both ways are shown.',
  },
  overdosed: {
    name: 'Overdosed',
    alike: 'All alike: another dose than planned. Tell it, and count it in the cost.',
    apart: 'Some alone: another treatment. Leave them out with a reason, or replace them from the spares.',
  },
  doseChanged: {
    name: 'Dose changed',
    alike: 'All alike: another trial from that day on. Tell it; judge before and after.',
    apart:
      'One contender alone: from that day it is another treatment. Make the same change for all, or tell it.',
  },
  ranDry: {
    name: 'Ran dry or out of feed',
    alike: 'All alike: growth ended there. End now, or fill all up alike and tell it.',
    apart: 'Some alone: measured on, it tells who ran out first. Fill all up alike, or end all on this day.',
  },
  moved: {
    name: 'Moved or shuffled',
    alike: 'Positions are evened out. Log the moves in Layout, so that the plan shows where each stands.',
    apart: 'Log the moves in Layout: position may explain a difference.',
  },
  pest: {
    name: 'Pest or disease',
    alike: 'All alike: spread goes up. Treat all the same and tell with what.',
    apart:
      'Some alone: what was eaten isn’t the product’s doing, unless that is the question. Show both ways.',
  },
  breakage: {
    name: 'Broken or spilt',
    alike: 'All alike: tell it.',
    apart: 'Leave the unit out with a reason, or replace it from the spares.',
  },
  heat: {
    name: 'Too hot or too cold',
    alike: 'All alike: tell it; the products were compared under it.',
    apart: 'One area alone: position may explain a difference. Loggers show how much.',
  },
  powerCut: {
    name: 'Power cut',
    alike: 'All alike: tell how long.',
    apart: 'Some alone: their light or air was another. Tell it, and show both ways.',
  },
  mediumChanged: {
    name: 'Medium changed',
    alike: 'All alike: tell it.',
    apart: 'Some alone: another treatment from that day on. The same for all, or left out.',
  },
  other: {
    name: 'Something else',
    alike: 'Tell it in the review.',
    apart: 'Ask whether it explains a difference; if so, show both ways.',
  },
} as const;

export type Happening = keyof typeof happenings;
export const happeningNames = Object.keys(happenings) as Happening[];
