import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { api } from "../api/client";
import { faultsByPath } from "../shared/faults";
import { Dialog } from "../shared/Dialog";
import { PlaceFields, type ShopPlace } from "../shared/PlaceFields";
import { Button, Notice, Small } from "../shared/parts";
import { useSession } from "../session/SessionGate";

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 12px 18px;
  .wide {
    grid-column: 1 / -1;
  }
  @media (max-width: 560px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** How the shop is called, where it is and how it writes, said anew by its owner. */
export function ShopDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient();
  const { shop } = useSession();
  const [name, setName] = useState(shop.name);
  const [place, setPlace] = useState<ShopPlace>({
    locale: shop.locale,
    timeZone: shop.time_zone,
    paper: shop.paper,
    distance: shop.distance_unit,
  });
  const keep = useMutation({
    mutationFn: api.keepShop,
    onSuccess: async () => {
      await queries.invalidateQueries();
      onClose();
    },
  });
  const faults = faultsByPath(keep.error);

  return (
    <Dialog title="The shop" onClose={onClose} wide>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate({
            name,
            locale: place.locale,
            distance_unit: place.distance,
            time_zone: place.timeZone,
            paper: place.paper,
          });
        }}
      >
        <Fields>
          <PlaceFields
            name={name}
            onName={setName}
            place={place}
            onPlace={(change) => setPlace((now) => ({ ...now, ...change }))}
            faults={{ name: faults["/name"], time_zone: faults["/time_zone"] }}
          />
        </Fields>
        {keep.error && Object.keys(faults).length === 0 && (
          <Notice role="alert">
            <p>{keep.error.message}</p>
          </Notice>
        )}
        <p style={{ display: "flex", gap: 10, alignItems: "center", flexWrap: "wrap", marginTop: 14 }}>
          <Button $main type="submit" isPending={keep.isPending}>
            Keep
          </Button>
          <Button onPress={onClose}>Leave as it is</Button>
          <Small>What was saved and printed before stays as it was.</Small>
        </p>
      </Form>
    </Dialog>
  );
}
