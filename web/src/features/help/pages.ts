/** A help page of a stage of the work: what it answers, how one goes on, what goes wrong. */
export type HelpPage = { key: string; name: string; answers: string; steps: string[]; mistakes: string[] };

export const HELP: HelpPage[] = [
  {
    key: "today",
    name: "Today",
    answers: "What may be laid or done today, until when, and what is in the way if nothing may.",
    steps: [
      "Read the first sentence: it names one surface, one product and the times.",
      "Below it stands why: what stops an earlier start, and what comes after the last one.",
      "On the ribbon, point at an hour to read all lanes at it; on a phone, press it.",
      "Go through “in this order today”; log each thing when it is done, with “log it”.",
    ],
    mistakes: [
      "Laying at noon what must hold for six hours, with dew at sunset: look at when the window of starts closes.",
      "Trusting a told or simulated day as if it were measured: the line above the sentence says which it is.",
    ],
  },
  {
    key: "survey",
    name: "Survey",
    answers: "How large each surface is and how sure that is, what it is made of, what is wrong with it.",
    steps: [
      "Pick a surface on the drawing or in the list.",
      "Measure what costs most first: the list says where a tape buys most certainty.",
      "Describe what lies under: the old layers decide what may go over them.",
      "Pin each defect where it is; a walk-round sheet prints for the hull.",
    ],
    mistakes: [
      "Buying by an area that is ±30 %: measure girths at four stations first.",
      "Leaving out an old antifouling of unknown kind: the rules cannot warn of what they do not know.",
    ],
  },
  {
    key: "fairing",
    name: "Fairing",
    answers: "Where the lows are, how deep, how much filler in which passes, when it is fair.",
    steps: [
      "Lay a straight edge, read gaps every so far, and type them in the order in which you read.",
      "Or enter a grid, a scan, or circle lows by eye or light.",
      "Take one of the schools: its passes go into the build-up.",
      "After each round look again, and say so in the log: a guide coat shows what is left.",
    ],
    mistakes: ["Filling a low of more than 10 mm with light filler alone.", "Boarding across a knuckle: draw it as a hard line first."],
  },
  {
    key: "build-up",
    name: "Build-up",
    answers: "What goes on, how many coats, how much of it, what it costs and how long it takes.",
    steps: [
      "Take a school for every surface at once, or add steps one by one.",
      "Mend what the rules find, or let it stand with a reason.",
      "Read the cut section: it is to scale, and shows what may not be sanded through.",
    ],
    mistakes: [
      "Planning coats without what must come before: degreasing comes before sanding, which rubs wax in.",
      "Ordering before the areas are measured.",
    ],
  },
  {
    key: "finishes",
    name: "Finishes",
    answers: "The work of one kind of finish on a bench of its own: non-skid, gelcoat, brightwork, antifouling, metal, fittings.",
    steps: [
      "Open the bench that fits the surface.",
      "Change what is different on your boat.",
      "Put it into the build-up: from there it is planned, bought and logged like any other work.",
    ],
    mistakes: ["Leaving a plan on its bench: nothing is bought or scheduled before it is in the build-up."],
  },
  {
    key: "stores",
    name: "Stores",
    answers: "What to buy, in whole tins, what is on the shelf, and what it costs.",
    steps: [
      "Count the shelf once; what is logged is taken off by itself.",
      "Read what is short for the next coat first.",
      "Print the list for the shop.",
    ],
    mistakes: ["Buying both parts of a kit when only the hardener is short: look at what is over without its other part."],
  },
  {
    key: "weather",
    name: "Weather",
    answers: "When each product may be laid on each surface, by the forecast and by odds.",
    steps: [
      "Bring a forecast or a logger’s file, or tell the days in your own words.",
      "Read the windows of the surface; the chart shows the air against the product’s field.",
      "Best chances play the forecast’s error many times: take the start that holds most often.",
      "Tent and heat says what covering buys, and what it costs.",
    ],
    mistakes: [
      "Reading the air’s temperature for the surface’s: a clear sky cools a deck below the air.",
      "Taking the first hour that is dry for the one in which the coat also dries.",
    ],
  },
  {
    key: "plan",
    name: "Plan",
    answers: "Which task when and by whom, which launch is late, and what would help.",
    steps: [
      "Say who works when, under Hands.",
      "Read the dates as half the time and nine times in ten.",
      "Drag a bar to try another time: what it moves is shown before it is kept.",
      "Print a day’s sheet for each person.",
    ],
    mistakes: [
      "Reading the usual-weather date as a promise.",
      "Leaving the hours of the people out: then nobody is booked, and everything fits.",
    ],
  },
  {
    key: "bench",
    name: "Bench",
    answers: "What to pour, in which pots, how thick to lay it, and what to check before the tin is opened.",
    steps: [
      "Say which surface; the coat that is next is set up.",
      "Weigh or measure as the table says, in its order.",
      "Start the timers: they run on while the phone is locked.",
      "“It is on” logs the coat with what was planned; two taps.",
    ],
    mistakes: [
      "Mixing a large pot because the coat is large: big pots go off sooner. Mix the pots as they are cut.",
      "Thinning past what the sheet allows.",
    ],
  },
  {
    key: "log",
    name: "Log",
    answers: "What was done, by whom, in which weather, with which film; what it cost and when it wants doing again.",
    steps: [
      "Log what you did when you did it; without a signal it is kept on the phone and sent later.",
      "Enter what the comb and the gauge showed.",
      "Photograph what you will ask yourself about next year.",
    ],
    mistakes: ["Logging a coat without its wash or sanding: the next one then waits for work that is done."],
  },
  {
    key: "library",
    name: "Library",
    answers: "The data sheets that all figures rest on.",
    steps: [
      "Replace the example’s figures by those of the tin in hand.",
      "Type the table of recoat times as it is printed; two temperatures are the least.",
      "Exchange sheets as a file with others.",
    ],
    mistakes: ["Trusting an example: its figures are invented and say so."],
  },
];
