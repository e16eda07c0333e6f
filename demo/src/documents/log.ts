import { beachProfile } from '../pictures/index';

const PROFILE = beachProfile().toString('base64');

/** A text of the field course, as somebody keeps it in a file of Markdown, with a picture written out in it (RFC 2397). */
export const LOG = `# Log of the second day

Low water was at **09:12** by the table and at *09:31* by the gauge. The wind came from the sea all
morning, four to five, which is what the difference is put down to.

A stress $\\tau$ of the wind over a fetch $F$ raises water of the depth $h$ by

$$\\Delta z = \\frac{\\tau F}{\\varrho g h}$$

which is the right size for a bay as flat as this one.

## Moorings

| Place | Depth | Lines |
| --- | --: | --- |
| Quay | 2.10 m | bow and stern |
| Slip | 1.85 m | bow, spring |
| Stage | 0.60 m | none at low water |

- [x] Lines checked at low water
- [x] Fenders put out
- [ ] Spare anchor brought to the stage

## Reading the gauge

The gauge stands beside the landing stage. It is read every ten minutes while the water falls, and
every five about low water:

1. Wait until the water in the tube is quiet.
2. Read the lower edge of the curve, at the height of the eye.
3. Write down the time first, and then the height.

> What is not written down has not been read.

The beach below the slip, as both surveys have it; since the storm it is lower by half a metre in the middle:

![The beach below the slip in two surveys, the later one lower in the middle][profile]

### What we would do otherwise

Two of us should read at the same time for an hour, without saying what we read. Yesterday's heights
differ by 3 cm where the readers changed places, and nobody can say whose they were.

    height = reading + 0.42 - 0.05 * pressure

Η παλίρροια, 潮汐, גאות ושפל: the sign at the stage says it in three scripts, and the ferry in none.

[profile]: data:image/svg+xml;base64,${PROFILE}
`;
