import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Switch } from "react-aria-components";
import styled from "styled-components";
import { api, type House } from "../api/client";
import { useSession } from "../session/SessionGate";
import { list } from "../shared/format";
import { Field } from "../shared/fields/Field";
import { Asked, BookPage, Button, Heading, Notice, Small, Unseen } from "../shared/parts";
import type { Schema } from "./figures";
import { inWords } from "./inWords";
import { TheShop } from "./TheShop";
import { People } from "../people/People";
import { whenOpened } from "../shared/whenOpened";

const FigureDialog = whenOpened(async () => (await import("./FigureDialog")).FigureDialog);

const Rows = styled.ul`
  list-style: none;
  margin: 4px 0 12px;
  padding: 0;
  border-top: 1px solid var(--strong);
  columns: 2;
  column-gap: 36px;
  @media (max-width: 800px) {
    columns: 1;
  }
  li {
    break-inside: avoid;
    border-bottom: 1px solid var(--rule);
  }
`;
const Owned = styled(Switch)`
  display: grid;
  grid-template-columns: 58px minmax(0, 1fr);
  gap: 0 12px;
  align-items: baseline;
  padding: 9px 4px;
  min-height: 44px;
  cursor: pointer;
  .word {
    font-size: 13px;
    border: 1.4px solid var(--ink);
    border-radius: 4px;
    padding: 1px 0;
    text-align: center;
  }
  &[data-selected] .word {
    background: var(--ink);
    color: var(--sheet);
  }
  &[data-disabled] {
    cursor: default;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--mark);
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--second);
  }
`;
const Add = styled.form`
  display: flex;
  gap: 10px;
  align-items: end;
  flex-wrap: wrap;
  margin-bottom: 8px;
`;
const Settings = styled.table`
  margin: 4px 0 20px;
  font-size: 14px;
  caption {
    text-align: left;
    font-weight: 650;
    padding: 10px 0 4px;
    border-bottom: 1px solid var(--strong);
    text-transform: capitalize;
  }
  th,
  td {
    padding: 4px 10px 4px 0;
    border-bottom: 1px solid var(--rule);
    vertical-align: top;
  }
  th {
    text-align: left;
    font-weight: 400;
    width: 42%;
  }
  td:last-child {
    width: 150px;
    text-align: right;
    color: var(--second);
    font-size: 13px;
    white-space: nowrap;
  }
  @media (max-width: 600px) {
    th {
      width: 36%;
    }
    td:last-child {
      width: 74px;
      padding-right: 0;
    }
  }
`;

/** What the shop owns and by what rules it reckons. Equipment opens and closes routes; the owner keeps it. */
export function HouseRules() {
  const queries = useQueryClient();
  const { account, format } = useSession();
  const [name, setName] = useState("");
  const [changing, setChanging] = useState<string | null>(null);
  const house = useQuery({ queryKey: ["house"], queryFn: api.house });
  const keep = useMutation({
    mutationFn: ({ equipment, revision }: { equipment: string[]; revision: number }) =>
      api.keepEquipment(equipment, revision),
    onSuccess: (fresh) => queries.setQueryData(["house"], fresh),
    onError: () => void queries.invalidateQueries({ queryKey: ["house"] }),
  });
  const writes = account.role === "owner";
  const change = (current: House, id: string, owned: boolean) => {
    const others = current.equipment.filter((row) => row.owned && row.id !== id).map((row) => row.id);
    keep.mutate({ equipment: owned ? [...others, id] : others, revision: current.revision });
  };
  const problem = house.error ?? keep.error;
  const wanted = name
    .trim()
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, "-");
  const figure = house.data?.settings.find((row) => row.name === changing);
  const groups = [...new Set(house.data?.settings.map((row) => row.group))];

  return (
    <BookPage aria-busy={house.isPending || keep.isPending}>
      <header>
        <h1>House rules</h1>
        {house.data && <Small>revision {house.data.revision}</Small>}
      </header>
      {problem && (
        <Notice role="alert">
          <p>{problem.message}</p>
        </Notice>
      )}
      {house.isPending && <Small>Reading the rules…</Small>}
      {house.data && (
        <>
          {writes && <TheShop />}
          {writes && <People />}
          <Heading style={{ marginTop: 18 }}>
            <span>Equipment</span>
            <Small>
              {writes
                ? "a change re-prices every open quote; saved ones stay as they are"
                : "the owner keeps this list"}
            </Small>
          </Heading>
          <Rows>
            {house.data.equipment.map((row) => (
              <li key={row.id}>
                <Owned
                  isSelected={row.owned}
                  isDisabled={!writes || keep.isPending}
                  onChange={(owned) => change(house.data, row.id, owned)}
                >
                  <span className="word">{row.owned ? "here" : "not here"}</span>
                  <span>
                    {row.label}
                    <small>
                      {row.engines.length
                        ? `asked for by ${list(row.engines)}`
                        : "no engine in the library asks for it"}
                    </small>
                  </span>
                </Owned>
              </li>
            ))}
          </Rows>
          {writes && (
            <Add
              onSubmit={(event) => {
                event.preventDefault();
                if (wanted) change(house.data, wanted, true);
                setName("");
              }}
            >
              <Field
                label="Something else the shop owns"
                value={name}
                onChange={setName}
                maxLength={60}
                placeholder="engine support bar"
              />
              <Button type="submit" isDisabled={!wanted}>
                Add
              </Button>
            </Add>
          )}
          <Heading style={{ marginTop: 26 }}>
            <span>Figures the estimates start from</span>
            <Small>
              {writes ? "press one to change it; none is learned from jobs yet" : "none is learned from jobs yet"}
            </Small>
          </Heading>
          {groups.map((group) => (
            <Settings key={group}>
              <caption>{group}</caption>
              <tbody>
                {house.data.settings
                  .filter((row) => row.group === group)
                  .map((row) => (
                    <tr key={row.name}>
                      <th scope="row">{row.label}</th>
                      <td>
                        {writes ? (
                          <Asked onPress={() => setChanging(row.name)}>
                            {inWords(row.value, row.schema as Schema, format)}
                            <Unseen>: change {row.label}</Unseen>
                          </Asked>
                        ) : (
                          inWords(row.value, row.schema as Schema, format)
                        )}
                      </td>
                      <td>{row.own ? "this shop's" : "as shipped"}</td>
                    </tr>
                  ))}
              </tbody>
            </Settings>
          ))}
          {figure && (
            <FigureDialog
              key={figure.name}
              figure={figure}
              revision={house.data.revision}
              onClose={() => setChanging(null)}
            />
          )}
        </>
      )}
    </BookPage>
  );
}
