/** How another device learns to trust this studio: its own authority, step by step, with a fingerprint to compare. */
import { useQuery } from '@tanstack/react-query';
import { networkQuery } from '../api/door';
import { Await } from '../shell/states';
import { DoorPage } from './door-page';

const STEPS: readonly { system: string; steps: readonly string[] }[] = [
  {
    system: 'iPad and iPhone',
    steps: [
      'Press “Fetch the certificate” and allow it.',
      'Settings → General → VPN & Device Management: install the profile.',
      'Settings → General → About → Certificate Trust Settings: switch it on.',
    ],
  },
  {
    system: 'Android',
    steps: [
      'Press “Fetch the certificate”.',
      'Settings → Security → More → Encryption & credentials → Install a certificate → CA certificate: choose the file.',
    ],
  },
  {
    system: 'Windows',
    steps: [
      'Press “Fetch the certificate” and open the file.',
      'Install it for this computer, into “Trusted Root Certification Authorities”.',
    ],
  },
  {
    system: 'macOS',
    steps: [
      'Press “Fetch the certificate” and open the file.',
      'In Keychain Access open it, and under Trust choose “Always trust”.',
    ],
  },
  {
    system: 'Firefox, on any system',
    steps: ['Settings → Privacy & Security → View Certificates → Authorities → Import: choose the file, for websites.'],
  },
];

export function TrustScreen() {
  return (
    <DoorPage title="Let this device trust the studio">
      <Await query={useQuery(networkQuery)} what="the certificate">
        {({ fingerprint }) =>
          fingerprint === null ? (
            <p className="text-lg">Nothing needs to be done: this studio has a certificate that devices trust.</p>
          ) : (
            <>
              <p>
                What is said between this device and the studio is sealed, once the device knows the studio’s own
                certificate. Do this once on each device.
              </p>
              <a className="btn btn-primary target" href="/api/network/root.crt" download="waxwing-studio.crt">
                Fetch the certificate
              </a>
              <div>
                <h2 className="mb-1 text-lg">Compare before you trust it</h2>
                <p className="bg-base-200 p-3 font-mono text-sm break-all">{fingerprint}</p>
                <p className="quiet mt-1 text-sm">
                  The desk shows the same under Studio → Devices. If they differ, stop: somebody stands between.
                </p>
              </div>
              {STEPS.map(({ system, steps }) => (
                <details key={system} className="border-base-300 border-t pt-3">
                  <summary className="min-h-11 cursor-pointer text-lg font-bold">{system}</summary>
                  <ol className="list-decimal space-y-1 pl-6">
                    {steps.map((step) => (
                      <li key={step}>{step}</li>
                    ))}
                  </ol>
                </details>
              ))}
              <p className="quiet text-sm">Then open the studio’s address again: no warning is shown any more.</p>
            </>
          )
        }
      </Await>
    </DoorPage>
  );
}
