import { useState } from 'react';
import type { AnswerOf, Api } from '@avrelle/core/api';
import { useWrite } from '../data/use-write';
import { Confirm } from '../ui/Confirm';
import { Secret } from './Secret';

export type Account = AnswerOf<Api['GET /api/people']>['people'][number];
export interface AskedOfAccount {
  readonly what: 'suspend' | 'reset';
  readonly account: Account;
}

interface Props extends AskedOfAccount {
  readonly onClose: () => void;
}

/** What an administrator is asked before an account is suspended or given a new password, and that password. */
export function AccountDialogs({ what, account: { id, name }, onClose }: Props) {
  const suspend = useWrite('PUT /api/people/:id/suspension', 'people');
  const reset = useWrite('POST /api/people/:id/password');
  const [password, setPassword] = useState<string>();
  if (password !== undefined)
    return (
      <Secret title={`The new password of ${name}`} value={password} onClose={onClose}>
        Tell them yourself; it is not shown again. They can change it under “Your account”.
      </Secret>
    );
  if (what === 'suspend')
    return (
      <Confirm
        title={`Suspend the account of ${name}?`}
        action="Suspend"
        onClose={onClose}
        run={async () => {
          await suspend.send({ params: { id } });
          onClose();
        }}
      >
        <p>They are signed out everywhere and cannot sign in until you open the account again.</p>
        <p>Nothing is deleted. What they shared stays with their classes.</p>
      </Confirm>
    );
  return (
    <Confirm
      title={`Give ${name} a new password?`}
      action="Make a new password"
      onClose={onClose}
      run={async () => setPassword((await reset.send({ params: { id } })).password)}
    >
      <p>Their current password stops working, they are signed out everywhere, and their access keys end.</p>
    </Confirm>
  );
}
