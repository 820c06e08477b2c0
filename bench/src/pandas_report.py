"""The table that `npm run bench -- report` measures, by pandas: counts, percentages, Wilson intervals, pairwise tests with Holm."""

import json
import sys
import time

import numpy as np
import pandas as pd

folder, weighted = sys.argv[1], sys.argv[2] == "weighted"
mentions = pd.DataFrame(
    {
        "respondent": np.fromfile(f"{folder}/respondents.i32", dtype=np.int32),
        "code": np.fromfile(f"{folder}/codes.i32", dtype=np.int32),
    }
)
people = pd.DataFrame({"group": np.fromfile(f"{folder}/groups.i32", dtype=np.int32)})
people["weight"] = np.fromfile(f"{folder}/weights.f64", dtype=np.float64) if weighted else 1.0


def normal_tail(z):
    from math import erfc, sqrt

    return np.vectorize(lambda one: erfc(abs(one) / sqrt(2)))(z)


def table():
    once = mentions.drop_duplicates()
    joined = once.join(people, on="respondent")
    joined["square"] = joined["weight"] ** 2
    counts = pd.crosstab(joined["code"], joined["group"])
    sums = joined.pivot_table(index="code", columns="group", values="weight", aggfunc="sum", fill_value=0)
    every = mentions.join(people, on="respondent")
    all_mentions = pd.crosstab(every["code"], every["group"])
    base = people.groupby("group")["weight"].agg(["count", "sum", lambda w: (w**2).sum()])
    base.columns = ["people", "weight", "squares"]
    effective = base["weight"] ** 2 / base["squares"]
    share = sums / base["weight"]
    z = 1.959963984540054
    n = effective.to_numpy()
    centre = (share + z * z / (2 * n)) / (1 + z * z / n)
    half = z * np.sqrt(share * (1 - share) / n + z * z / (4 * n * n)) / (1 + z * z / n)
    low, high = centre - half, centre + half
    values = share.to_numpy()
    k = len(n)
    first, second = np.triu_indices(k, 1)
    pooled = (values[:, first] * n[first] + values[:, second] * n[second]) / (n[first] + n[second])
    error = np.sqrt(pooled * (1 - pooled) * (1 / n[first] + 1 / n[second]))
    p = normal_tail((values[:, first] - values[:, second]) / error)
    order = np.argsort(p, axis=1)
    ranked = np.take_along_axis(p, order, axis=1)
    holm = np.minimum(1, np.maximum.accumulate(ranked * (ranked.shape[1] - np.arange(ranked.shape[1])), axis=1))
    return counts, share, low, high, all_mentions, (holm < 0.05).sum()


times = []
for _ in range(5):
    begun = time.perf_counter()
    counts, share, low, high, all_mentions, beyond = table()
    times.append((time.perf_counter() - begun) * 1000)
print(
    json.dumps(
        {
            "ms": min(times),
            "count": int(counts.iloc[3, 7]),
            "share": float(share.iloc[3, 7]),
            "mentions": int(all_mentions.iloc[3, 7]),
            "beyond": int(beyond),
        }
    )
)
