import { teacherText } from '@zest/core/words';
import { teamApi } from './team-api.ts';
import { problemText } from './api.ts';
import { AccountForm } from './AccountForm.tsx';

/** A new password by a link that an owner gave. */
export function NewPassword() {
  const [set, setting] = teamApi.useSetNewPasswordMutation();
  return (
    <AccountForm
      title={teacherText('app.choose-new-password')}
      about="Whoever is signed in with the old one is signed out."
      problem={problemText(setting.error)}
      isBusy={setting.isLoading}
      asksName={false}
      action={teacherText('app.set-password')}
      onDone={async ({ password }) =>
        (await set({ code: location.hash.slice(1), password })).data !== undefined
      }
    />
  );
}
