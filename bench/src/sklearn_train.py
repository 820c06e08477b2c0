"""What `npm run bench -- train` is compared with: scikit-learn's fit and prediction alone, without folds or calibration."""

import json
import sys
import time

import numpy as np
from scipy.sparse import hstack
from sklearn.feature_extraction.text import TfidfVectorizer
from sklearn.linear_model import LogisticRegression
from sklearn.multiclass import OneVsRestClassifier

with open(sys.argv[1]) as file:
    given = json.load(file)
texts, labels, settled = given["texts"], np.array(given["labels"]), given["settled"]

begun = time.perf_counter()
words = TfidfVectorizer(ngram_range=(1, 2), sublinear_tf=True)
characters = TfidfVectorizer(analyzer="char_wb", ngram_range=(3, 5), sublinear_tf=True)
learnt = hstack([words.fit_transform(texts[:settled]), characters.fit_transform(texts[:settled])]).tocsr()
model = OneVsRestClassifier(LogisticRegression(solver="liblinear", C=4), n_jobs=2).fit(learnt, labels)
every = hstack([words.transform(texts), characters.transform(texts)]).tocsr()
probabilities = model.predict_proba(every)
assert probabilities.shape == (len(texts), labels.shape[1])
print(json.dumps({"seconds": round(time.perf_counter() - begun, 1)}))
