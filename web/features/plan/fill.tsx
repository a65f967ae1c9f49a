"use client";

import { Link } from "@/ui/address";
import { Aside, Empty, PageLayout } from "@/ui/side-notes";
import { Lines, TheMix, WhatIsThere } from "./fill-panels";
import { type FillProps, useFill } from "./use-fill";

/** From what is there to what can be filled: each product alone, then the mix that uses it up best or earns most. */
export function FillFromShelf(props: FillProps) {
  const { names, products } = props;
  const fill = useFill(props);
  if (names.length === 0 || fill.containers.length === 0)
    return (
      <PageLayout title="What can I fill?">
        <Empty
          title={names.length === 0 ? "No formula to fill with" : "No vessel to fill"}
          action={
            <Link className="act" data-next-step href={names.length === 0 ? "/formulas/new" : "/shelf"}>
              {names.length === 0 ? "Make a formula" : "Go to the shelf"}
            </Link>
          }
        >
          <p>
            From what is there, the program works out how many of each you can make, and which mix uses it up best. It needs formulas and vessels to choose
            from.
          </p>
        </Empty>
      </PageLayout>
    );
  return (
    <PageLayout
      title="What can I fill?"
      lead="From what is there to what can be made of it."
      actions={
        <Link className="press" href="/plan">
          Back to the plan
        </Link>
      }
      side={
        <>
          <Aside title="Two questions">
            Beside each product stands how many of it alone there is enough for. Which <em>mix</em> uses everything up best, or earns most, is found by a solver
            that looks through all of them.
          </Aside>
          <Aside title="What does not limit">
            A material whose amount is empty is taken as plentiful. Amounts come from the stock; type over them to try something out.
          </Aside>
          <Aside title="Whole grams">Weighed in whole grams, a batch can ask for a gram more than its jars together. Leave a few grams over.</Aside>
        </>
      }
    >
      <form
        ref={fill.fields.form}
        onSubmit={(event) => {
          event.preventDefault();
          fill.find();
        }}
      >
        <TheMix fill={fill} />
        <Lines fill={fill} products={products} />
        <WhatIsThere fill={fill} />
      </form>
    </PageLayout>
  );
}
