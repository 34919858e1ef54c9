/** How another device learns to trust this studio: its own authority, step by step, with a fingerprint to compare. */
import { useQuery } from '@tanstack/react-query';

import { networkQuery } from '../api/door';
import { Await } from '../shell/states';
import { say } from '../words/say';
import { DoorPage } from './door-page';

const STEPS: readonly { system: string; steps: readonly string[] }[] = [
  {
    system: say.door.ipadAndIphone,
    steps: [
      say.door.pressFetchTheCertificateAnd,
      say.door.settingsGeneralVpnDeviceManagement,
      say.door.settingsGeneralAboutCertificateTrust,
    ],
  },
  {
    system: say.door.android,
    steps: [say.door.pressFetchTheCertificate, say.door.settingsSecurityMoreEncryptionCredentials],
  },
  {
    system: say.door.windows,
    steps: [say.door.pressFetchTheCertificateAndOpen, say.door.installItForThisComputer],
  },
  {
    system: 'macOS',
    steps: [say.door.pressFetchTheCertificateAndOpen, say.door.inKeychainAccessOpenIt],
  },
  {
    system: say.door.firefoxOnAnySystem,
    steps: [say.door.settingsPrivacySecurityViewCertificates],
  },
];

export function TrustScreen() {
  return (
    <DoorPage title={say.door.letThisDeviceTrustThe}>
      <Await query={useQuery(networkQuery)} what={say.door.theCertificate}>
        {({ fingerprint }) =>
          fingerprint === null ? (
            <p className="text-lg">{say.door.nothingNeedsToBeDone}</p>
          ) : (
            <>
              <p>{say.door.whatIsSaidBetweenThis}</p>
              <a className="btn btn-primary target" href="/api/network/root.crt" download="waxwing-studio.crt">
                {say.door.fetchTheCertificate}
              </a>
              <div>
                <h2 className="mb-1 text-lg">{say.door.compareBeforeYouTrustIt}</h2>
                <p className="bg-base-200 p-3 font-mono text-sm break-all">{fingerprint}</p>
                <p className="quiet mt-1 text-sm">{say.door.theDeskShowsTheSame}</p>
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
              <p className="quiet text-sm">{say.door.thenOpenTheStudiosAddress}</p>
            </>
          )
        }
      </Await>
    </DoorPage>
  );
}
