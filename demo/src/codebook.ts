/** The demo's codebook. `key` is what marks a code in the answers' source files. */
export const codebook = [
  {
    name: 'Timetable',
    codes: [
      {
        key: 'ms',
        name: 'More sailings',
        definition: 'Wants boats more often, or an extra one in the day.',
        include: 'More frequent crossings; nothing between morning and evening',
        exclude: 'Earlier first or later last boats; winter and Sunday service',
      },
      {
        key: 'el',
        name: 'Earlier or later boats',
        definition: 'The first boat is too late or the last one too early.',
        include: 'Last boat leaves before the evening is over; first boat after work starts',
        exclude: 'More boats in the middle of the day',
      },
      {
        key: 'ws',
        name: 'Winter and Sundays',
        definition: 'Service in winter, on Sundays or holidays is thin or missing.',
        include: 'No Sunday boat; the winter timetable',
        exclude: 'Single sailings cancelled for weather',
      },
      {
        key: 'bt',
        name: 'Bus and train links',
        definition: 'Getting to and from the harbour; buses and trains that miss the boat.',
        include: 'Connections with the train, a bus from the station, parking at the harbour',
        exclude: 'Signs on the quay itself',
      },
    ],
  },
  {
    name: 'Reliability',
    codes: [
      {
        key: 'cx',
        name: 'Cancelled sailings',
        definition: 'The boat does not go: weather, breakdown, no crew.',
        include: 'Gales, fog, swell, engine trouble; a bigger boat that could sail',
        exclude: 'Boats that go late; not being told',
      },
      {
        key: 'rl',
        name: 'Running late',
        definition: 'The boat goes, but not when the timetable says.',
        include: 'Delays, punctuality, arriving after work or lessons start',
        exclude: 'Cancelled sailings',
      },
      {
        key: 'it',
        name: 'Told in time',
        definition: 'Information about what runs, when and where, and changes to it.',
        include: 'Texts, boards, phone line, announcements, nobody knew anything',
        exclude: 'The booking site as such',
      },
    ],
  },
  {
    name: 'Price',
    codes: [
      {
        key: 'pf',
        name: 'Passenger fares',
        definition: 'What it costs to travel on foot.',
        include: 'Too dear, tickets gone up, could not afford it',
        exclude: 'Vehicle charges; discounts for islanders and regulars',
      },
      {
        key: 'pv',
        name: 'Price for vehicles',
        definition: 'What it costs to take a car, van, trailer or camper.',
        include: 'Car fare, charge for motorhomes, freight rates',
        exclude: 'Whether there is room for the vehicle',
      },
      {
        key: 'if',
        name: 'Islander and regular fares',
        definition: 'Discounts for residents, commuters, pupils; season tickets.',
        include: 'Resident card, carnet, season ticket that is worth buying',
        exclude: 'Fares too high in general',
      },
    ],
  },
  {
    name: 'Getting a place',
    codes: [
      {
        key: 'qq',
        name: 'Queue at the quay',
        definition: 'Waiting in line and how boarding is organised.',
        include: 'Lanes, marshals, queue jumping, long waits to board',
        exclude: 'No shelter while waiting',
      },
      {
        key: 'bk',
        name: 'Booking',
        definition: 'Booking or changing a place by website, app or phone.',
        include: 'Website errors, phone engaged, trade accounts',
        exclude: 'No places left',
      },
      {
        key: 'cd',
        name: 'Car deck full',
        definition: 'No room for a car, van or lorry.',
        include: 'Fully booked, places held for residents, bumped freight',
        exclude: 'What the car costs',
      },
    ],
  },
  {
    name: 'On board and ashore',
    codes: [
      {
        key: 'ss',
        name: 'Seats and shelter',
        definition: 'Where one sits, waits and keeps warm and dry.',
        include: 'Waiting rooms, heating, standing room only, benches',
        exclude: 'Getting on and off',
      },
      {
        key: 'fd',
        name: 'Food and drink',
        definition: 'What one can eat and drink on board.',
        include: 'Coffee, breakfast, kiosk closed',
        exclude: '',
      },
      {
        key: 'tc',
        name: 'Toilets and cleanness',
        definition: 'State of toilets and of the boat.',
        include: 'Dirty, blocked, no soap',
        exclude: '',
      },
      {
        key: 'sr',
        name: 'Steps and ramps',
        definition: 'Getting aboard and moving about with limited mobility.',
        include: 'Gangway, lift, handrail, wheelchair, steep slip',
        exclude: 'Help given by the crew',
      },
      {
        key: 'cr',
        name: 'The crew',
        definition: 'How crew and staff treat people.',
        include: 'Kindness, help with bags, manners of the ticket office',
        exclude: '',
      },
      {
        key: 'bd',
        name: 'Bicycles and dogs',
        definition: 'Taking bicycles or animals.',
        include: 'Bike racks, bike charge, place for dogs',
        exclude: 'Livestock and horses as freight',
      },
    ],
  },
  {
    name: 'What it means',
    codes: [
      {
        key: 'll',
        name: 'Lifeline',
        definition: 'Work, school, health and supplies depend on it.',
        include: 'Hospital, job, shopping, vet, post; it is our road',
        exclude: 'Seeing people for their own sake',
      },
      {
        key: 'ff',
        name: 'Family and friends',
        definition: 'Being with family, friends, other people.',
        include: 'Grandchildren, going out, choir, not being cut off',
        exclude: '',
      },
      {
        key: 'sv',
        name: 'Sea and scenery',
        definition: 'The crossing as a pleasure: views, animals, air, peace.',
        include: 'Sunset, seals, quiet, fresh air',
        exclude: '',
      },
      {
        key: 'aw',
        name: 'Another way across',
        definition: 'Went by another boat or arranged things to do without.',
        include: 'Own boat, a lift from a neighbour, stayed over',
        exclude: '',
      },
    ],
  },
];
