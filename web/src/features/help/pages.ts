import { tr } from "../../words/words";

/** A help page of a stage of the work: what it answers, how one goes on, what goes wrong. */
export type HelpPage = { key: string; name: string; answers: string; steps: string[]; mistakes: string[] };

export const HELP: HelpPage[] = [
  {
    key: "today",
    name: tr("Today"),
    answers: tr("What may be laid or done today, until when, and what is in the way if nothing may."),
    steps: [
      tr("Read the first sentence: it names one surface, one product and the times."),
      tr("Below it stands why: what stops an earlier start, and what comes after the last one."),
      tr("On the ribbon, point at an hour to read all lanes at it; on a phone, press it."),
      tr("Go through “in this order today”; log each thing when it is done, with “log it”."),
    ],
    mistakes: [
      tr("Laying at noon what must hold for six hours, with dew at sunset: look at when the window of starts closes."),
      tr("Trusting a told or simulated day as if it were measured: the line above the sentence says which it is."),
    ],
  },
  {
    key: "survey",
    name: tr("Survey"),
    answers: tr("How large each surface is and how sure that is, what it is made of, what is wrong with it."),
    steps: [
      tr("Pick a surface on the drawing or in the list."),
      tr("Measure what costs most first: the list says where a tape buys most certainty."),
      tr("Describe what lies under: the old layers decide what may go over them."),
      tr("Pin each defect where it is; a walk-round sheet prints for the hull."),
    ],
    mistakes: [
      tr("Buying by an area that is ±30 %: measure girths at four stations first."),
      tr("Leaving out an old antifouling of unknown kind: the rules cannot warn of what they do not know."),
    ],
  },
  {
    key: "fairing",
    name: tr("Fairing"),
    answers: tr("Where the lows are, how deep, how much filler in which passes, when it is fair."),
    steps: [
      tr("Lay a straight edge, read gaps every so far, and type them in the order in which you read."),
      tr("Or enter a grid, a scan, or circle lows by eye or light."),
      tr("Take one of the schools: its passes go into the build-up."),
      tr("After each round look again, and say so in the log: a guide coat shows what is left."),
    ],
    mistakes: [
      tr("Filling a low of more than 10 mm with light filler alone."),
      tr("Boarding across a knuckle: draw it as a hard line first."),
    ],
  },
  {
    key: "build-up",
    name: tr("Build-up"),
    answers: tr("What goes on, how many coats, how much of it, what it costs and how long it takes."),
    steps: [
      tr("Take a school for every surface at once, or add steps one by one."),
      tr("Mend what the rules find, or let it stand with a reason."),
      tr("Read the cut section: it is to scale, and shows what may not be sanded through."),
    ],
    mistakes: [
      tr("Planning coats without what must come before: degreasing comes before sanding, which rubs wax in."),
      tr("Ordering before the areas are measured."),
    ],
  },
  {
    key: "finishes",
    name: tr("Finishes"),
    answers: tr(
      "The work of one kind of finish on a bench of its own: non-skid, gelcoat, brightwork, antifouling, metal, fittings.",
    ),
    steps: [
      tr("Open the bench that fits the surface."),
      tr("Change what is different on your boat."),
      tr("Put it into the build-up: from there it is planned, bought and logged like any other work."),
    ],
    mistakes: [tr("Leaving a plan on its bench: nothing is bought or scheduled before it is in the build-up.")],
  },
  {
    key: "stores",
    name: tr("Stores"),
    answers: tr("What to buy, in whole tins, what is on the shelf, and what it costs."),
    steps: [
      tr("Count the shelf once; what is logged is taken off by itself."),
      tr("Read what is short for the next coat first."),
      tr("Print the list for the shop."),
    ],
    mistakes: [
      tr("Buying both parts of a kit when only the hardener is short: look at what is over without its other part."),
    ],
  },
  {
    key: "weather",
    name: tr("Weather"),
    answers: tr("When each product may be laid on each surface, by the forecast and by odds."),
    steps: [
      tr("Bring a forecast or a logger’s file, or tell the days in your own words."),
      tr("Read the windows of the surface; the chart shows the air against the product’s field."),
      tr("Best chances play the forecast’s error many times: take the start that holds most often."),
      tr("Tent and heat says what covering buys, and what it costs."),
    ],
    mistakes: [
      tr("Reading the air’s temperature for the surface’s: a clear sky cools a deck below the air."),
      tr("Taking the first hour that is dry for the one in which the coat also dries."),
    ],
  },
  {
    key: "plan",
    name: tr("Plan"),
    answers: tr("Which task when and by whom, which launch is late, and what would help."),
    steps: [
      tr("Say who works when, under Hands."),
      tr("Read the dates as half the time and nine times in ten."),
      tr("Drag a bar to try another time: what it moves is shown before it is kept."),
      tr("Print a day’s sheet for each person."),
    ],
    mistakes: [
      tr("Reading the usual-weather date as a promise."),
      tr("Leaving the hours of the people out: then nobody is booked, and everything fits."),
    ],
  },
  {
    key: "bench",
    name: tr("Bench"),
    answers: tr("What to pour, in which pots, how thick to lay it, and what to check before the tin is opened."),
    steps: [
      tr("Say which surface; the coat that is next is set up."),
      tr("Weigh or measure as the table says, in its order."),
      tr("Start the timers: they run on while the phone is locked."),
      tr("“It is on” logs the coat with what was planned; two taps."),
    ],
    mistakes: [
      tr("Mixing a large pot because the coat is large: big pots go off sooner. Mix the pots as they are cut."),
      tr("Thinning past what the sheet allows."),
    ],
  },
  {
    key: "log",
    name: tr("Log"),
    answers: tr(
      "What was done, by whom, in which weather, with which film; what it cost and when it wants doing again.",
    ),
    steps: [
      tr("Log what you did when you did it; without a signal it is kept on the phone and sent later."),
      tr("Enter what the comb and the gauge showed."),
      tr("Photograph what you will ask yourself about next year."),
    ],
    mistakes: [tr("Logging a coat without its wash or sanding: the next one then waits for work that is done.")],
  },
  {
    key: "library",
    name: tr("Library"),
    answers: tr("The data sheets that all figures rest on."),
    steps: [
      tr("Replace the example’s figures by those of the tin in hand."),
      tr("Type the table of recoat times as it is printed; two temperatures are the least."),
      tr("Exchange sheets as a file with others."),
    ],
    mistakes: [tr("Trusting an example: its figures are invented and say so.")],
  },
];
