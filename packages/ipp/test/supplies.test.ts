import { integer, nameValue, octets, text, type Attributes } from '../src';
import { isAsleep } from '@foglio/core';
import { sayFaults } from '../src/faults';
import { readSupplies } from '../src/supplies';

const supply = (words: string): Attributes[string][number] => octets(words);

describe('what a printer prints with', () => {
  test('is read from printer-supply (PWG 5100.13), by its colours', () => {
    const told = {
      'printer-supply': [
        supply('index=1;class=supplyThatIsConsumed;type=toner;maxcapacity=12000;level=3000;colorantname=black;'),
        supply('index=2;class=supplyThatIsConsumed;type=toner;maxcapacity=100;level=-2;colorantname=cyan;'),
        supply('index=3;class=receptacleThatIsFilled;type=wasteToner;maxcapacity=100;level=10;'),
      ],
      'printer-supply-description': [text('Black toner'), text(''), text('Waste')],
    };
    expect(readSupplies(told)).toEqual([
      { name: 'Black toner', colour: '#1f2933', percent: 25 },
      // Not measured (RFC 3805, prtMarkerSuppliesLevel: -2 is unknown).
      { name: 'cyan toner', colour: '#1590b4', percent: null },
    ]);
  });

  test('or as many printers tell it', () => {
    const told = {
      'marker-names': [nameValue('Ink'), nameValue('Photo ink')],
      'marker-colors': [nameValue('#00FFFF'), nameValue('none')],
      'marker-levels': [integer(140), integer(-1)],
    };
    expect(readSupplies(told)).toEqual([
      { name: 'Ink', colour: '#00ffff', percent: 100 },
      { name: 'Photo ink', colour: null, percent: null },
    ]);
    expect(readSupplies({})).toEqual([]);
  });
});

test.each(['standby', 'suspend-report', 'hibernate'])('%s is sleep, and no fault', (reason) => {
  expect(isAsleep([reason])).toBe(true);
  expect(sayFaults([reason], null as never)).toEqual([]);
});

test('each fault says what to do', () => {
  for (const reason of ['marker-waste-full-error', 'output-area-full', 'interlock-open-error', 'toner-low-warning'])
    expect(sayFaults([reason], null as never)).toEqual([expect.stringMatching(/: .+\.$/)]);
});
