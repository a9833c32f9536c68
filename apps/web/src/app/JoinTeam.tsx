import { teacherText } from '@zest/core/words';
import { problemText } from './api.ts';
import { AccountForm } from './AccountForm.tsx';
import { teamApi } from './team-api.ts';

/** Into a team by an invitation: a name and a password, and one is in. */
export function JoinTeam() {
  const [accept, accepting] = teamApi.useAcceptInviteMutation();
  return (
    <AccountForm
      title={teacherText('app.join-team')}
      about="Choose a name to sign in with and a password. No e-mail is needed."
      problem={problemText(accepting.error)}
      isBusy={accepting.isLoading}
      asksName
      action={teacherText('app.join')}
      onDone={async ({ login, password }) =>
        (await accept({ code: location.hash.slice(1), login, password })).data !== undefined
      }
    />
  );
}
