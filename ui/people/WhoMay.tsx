/** What each role may do. */
import { roles, type Role } from '@/core/api/people';

export const WhoMay = ({ rows }: { rows: { what: string; roles: Role[] }[] }) => (
  <table className="list" aria-label="Who may do what">
    <thead>
      <tr>
        <th>To</th>
        {roles.map((role) => (
          <th key={role} className="w-[110px] capitalize">
            {role}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {rows.map((row) => (
        <tr key={row.what}>
          <td>{row.what}</td>
          {roles.map((role) => (
            <td key={role}>{row.roles.includes(role) ? 'yes' : <span className="text-soft">–</span>}</td>
          ))}
        </tr>
      ))}
    </tbody>
  </table>
);
