"""What `npm run bench -- suggest --sklearn` is compared with: scikit-learn's TF-IDF of words and logistic regression,
a code at a time, with the threshold that is best for F1 on out-of-fold probabilities of the sample."""

import json
import sys
import warnings

import numpy as np
from sklearn.feature_extraction.text import TfidfVectorizer
from sklearn.linear_model import LogisticRegression
from sklearn.metrics import average_precision_score, precision_recall_curve
from sklearn.model_selection import StratifiedKFold, cross_val_predict

warnings.filterwarnings("ignore")

with open(sys.argv[1]) as file:
    given = json.load(file)
texts, labels = given["texts"], np.array(given["labels"])
words = TfidfVectorizer(ngram_range=(1, 2), sublinear_tf=True, min_df=2).fit_transform(texts)


def outcome(truth, positive):
    return {
        "truePositives": int((positive & (truth == 1)).sum()),
        "falsePositives": int((positive & (truth == 0)).sum()),
        "falseNegatives": int((~positive & (truth == 1)).sum()),
    }


def measure(sample, code, strength):
    rest = np.setdiff1d(np.arange(len(texts)), sample)
    learnt, truth = labels[sample, code], labels[rest, code]
    found = int(learnt.sum())
    nothing = {"averagePrecision": None, "outcome": outcome(truth, np.zeros(len(rest), bool))}
    if found < 2 or found > len(sample) - 2:
        return nothing
    model = LogisticRegression(solver="liblinear", C=strength)
    folds = StratifiedKFold(min(5, found), shuffle=True, random_state=1)
    unseen = cross_val_predict(model, words[sample], learnt, cv=folds, method="predict_proba")[:, 1]
    precision, recall, lines = precision_recall_curve(learnt, unseen)
    f1 = 2 * precision * recall / np.maximum(precision + recall, 1e-12)
    line = lines[np.argmax(f1[:-1])]
    p = model.fit(words[sample], learnt).predict_proba(words[rest])[:, 1]
    return {
        "averagePrecision": float(average_precision_score(truth, p)) if truth.any() else None,
        "outcome": outcome(truth, p >= line),
    }


print(
    json.dumps(
        [
            [[measure(np.array(sample), code, strength) for code in range(labels.shape[1])] for sample in given["samples"]]
            for strength in given["strengths"]
        ]
    )
)
