'use client';

import { ROLE, ROLES, type Role } from '@/core/roles';
import { Select } from '@/interface/kit/controls/field';

/** The roles to choose from. */
export function RoleSelect({
  value,
  onChange,
  ...rest
}: {
  readonly value: Role;
  readonly onChange: (role: Role) => void;
  readonly 'aria-label'?: string;
  readonly disabled?: boolean;
  readonly title?: string;
}) {
  return (
    <Select {...rest} value={value} onChange={({ target }) => onChange(target.value as Role)}>
      {ROLES.map((role) => (
        <option key={role} value={role}>
          {ROLE[role].name}
        </option>
      ))}
    </Select>
  );
}
