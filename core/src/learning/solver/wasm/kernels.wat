;; Products of a sparse matrix with many vectors at a time, which stand side by side in 64 bytes a column or row: eight
;; of 64 bits, number j of vector b at 64 j + 8 b, or sixteen of 32 bits, at 64 j + 4 b. So an entry of the matrix is
;; read once for all of them and two or four are multiplied at once. Each vector's sum runs over a row's entries in their
;; order, whatever stands in the other places.
;;
;; `rows` lists so many rows (i32), `start` and `stop` say which entries are each row's (i32), `offset` is 64 × the
;; column of each entry (i32), `value` is its number (f64, for sixteen vectors f32). All are places in memory in bytes.
(module
  (memory (export "memory") 1)

  ;; into[row] = Σ value · from[column], for each of the rows listed
  (func (export "times")
    (param $rows i32) (param $count i32) (param $start i32) (param $stop i32) (param $offset i32)
    (param $value i32) (param $from i32) (param $into i32)
    (local $end i32) (local $row i32) (local $k i32) (local $last i32) (local $at i32) (local $by v128)
    (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local.set $end (i32.add (local.get $rows) (i32.shl (local.get $count) (i32.const 2))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $rows) (local.get $end)))
        (local.set $row (i32.load (local.get $rows)))
        (local.set $at (i32.shl (local.get $row) (i32.const 2)))
        (local.set $k (i32.load (i32.add (local.get $start) (local.get $at))))
        (local.set $last (i32.load (i32.add (local.get $stop) (local.get $at))))
        (local.set $a (v128.const f64x2 0 0))
        (local.set $b (v128.const f64x2 0 0))
        (local.set $c (v128.const f64x2 0 0))
        (local.set $d (v128.const f64x2 0 0))
        (block $ended
          (loop $entry
            (br_if $ended (i32.ge_u (local.get $k) (local.get $last)))
            (local.set $by
              (v128.load64_splat (i32.add (local.get $value) (i32.shl (local.get $k) (i32.const 3)))))
            (local.set $at
              (i32.add
                (local.get $from)
                (i32.load (i32.add (local.get $offset) (i32.shl (local.get $k) (i32.const 2))))))
            (local.set $a
              (f64x2.add (local.get $a) (f64x2.mul (local.get $by) (v128.load (local.get $at)))))
            (local.set $b
              (f64x2.add (local.get $b) (f64x2.mul (local.get $by) (v128.load offset=16 (local.get $at)))))
            (local.set $c
              (f64x2.add (local.get $c) (f64x2.mul (local.get $by) (v128.load offset=32 (local.get $at)))))
            (local.set $d
              (f64x2.add (local.get $d) (f64x2.mul (local.get $by) (v128.load offset=48 (local.get $at)))))
            (local.set $k (i32.add (local.get $k) (i32.const 1)))
            (br $entry)))
        (local.set $at (i32.add (local.get $into) (i32.shl (local.get $row) (i32.const 6))))
        (v128.store (local.get $at) (local.get $a))
        (v128.store offset=16 (local.get $at) (local.get $b))
        (v128.store offset=32 (local.get $at) (local.get $c))
        (v128.store offset=48 (local.get $at) (local.get $d))
        (local.set $rows (i32.add (local.get $rows) (i32.const 4)))
        (br $next))))

  ;; into[column] += value · from[row], for each of the rows listed
  (func (export "transposeTimes")
    (param $rows i32) (param $count i32) (param $start i32) (param $stop i32) (param $offset i32)
    (param $value i32) (param $from i32) (param $into i32)
    (local $end i32) (local $row i32) (local $k i32) (local $last i32) (local $at i32) (local $by v128)
    (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local.set $end (i32.add (local.get $rows) (i32.shl (local.get $count) (i32.const 2))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $rows) (local.get $end)))
        (local.set $row (i32.load (local.get $rows)))
        (local.set $at (i32.add (local.get $from) (i32.shl (local.get $row) (i32.const 6))))
        (local.set $a (v128.load (local.get $at)))
        (local.set $b (v128.load offset=16 (local.get $at)))
        (local.set $c (v128.load offset=32 (local.get $at)))
        (local.set $d (v128.load offset=48 (local.get $at)))
        (local.set $at (i32.shl (local.get $row) (i32.const 2)))
        (local.set $k (i32.load (i32.add (local.get $start) (local.get $at))))
        (local.set $last (i32.load (i32.add (local.get $stop) (local.get $at))))
        (block $ended
          (loop $entry
            (br_if $ended (i32.ge_u (local.get $k) (local.get $last)))
            (local.set $by
              (v128.load64_splat (i32.add (local.get $value) (i32.shl (local.get $k) (i32.const 3)))))
            (local.set $at
              (i32.add
                (local.get $into)
                (i32.load (i32.add (local.get $offset) (i32.shl (local.get $k) (i32.const 2))))))
            (v128.store (local.get $at)
              (f64x2.add (v128.load (local.get $at)) (f64x2.mul (local.get $by) (local.get $a))))
            (v128.store offset=16 (local.get $at)
              (f64x2.add (v128.load offset=16 (local.get $at)) (f64x2.mul (local.get $by) (local.get $b))))
            (v128.store offset=32 (local.get $at)
              (f64x2.add (v128.load offset=32 (local.get $at)) (f64x2.mul (local.get $by) (local.get $c))))
            (v128.store offset=48 (local.get $at)
              (f64x2.add (v128.load offset=48 (local.get $at)) (f64x2.mul (local.get $by) (local.get $d))))
            (local.set $k (i32.add (local.get $k) (i32.const 1)))
            (br $entry)))
        (local.set $rows (i32.add (local.get $rows) (i32.const 4)))
        (br $next))))

  ;; the same for sixteen: into[row] = Σ value · from[column], for each of the rows listed
  (func (export "times32")
    (param $rows i32) (param $count i32) (param $start i32) (param $stop i32) (param $offset i32)
    (param $value i32) (param $from i32) (param $into i32)
    (local $end i32) (local $row i32) (local $k i32) (local $last i32) (local $at i32) (local $by v128)
    (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local.set $end (i32.add (local.get $rows) (i32.shl (local.get $count) (i32.const 2))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $rows) (local.get $end)))
        (local.set $row (i32.load (local.get $rows)))
        (local.set $at (i32.shl (local.get $row) (i32.const 2)))
        (local.set $k (i32.load (i32.add (local.get $start) (local.get $at))))
        (local.set $last (i32.load (i32.add (local.get $stop) (local.get $at))))
        (local.set $a (v128.const f32x4 0 0 0 0))
        (local.set $b (v128.const f32x4 0 0 0 0))
        (local.set $c (v128.const f32x4 0 0 0 0))
        (local.set $d (v128.const f32x4 0 0 0 0))
        (block $ended
          (loop $entry
            (br_if $ended (i32.ge_u (local.get $k) (local.get $last)))
            (local.set $by
              (v128.load32_splat (i32.add (local.get $value) (i32.shl (local.get $k) (i32.const 2)))))
            (local.set $at
              (i32.add
                (local.get $from)
                (i32.load (i32.add (local.get $offset) (i32.shl (local.get $k) (i32.const 2))))))
            (local.set $a
              (f32x4.add (local.get $a) (f32x4.mul (local.get $by) (v128.load (local.get $at)))))
            (local.set $b
              (f32x4.add (local.get $b) (f32x4.mul (local.get $by) (v128.load offset=16 (local.get $at)))))
            (local.set $c
              (f32x4.add (local.get $c) (f32x4.mul (local.get $by) (v128.load offset=32 (local.get $at)))))
            (local.set $d
              (f32x4.add (local.get $d) (f32x4.mul (local.get $by) (v128.load offset=48 (local.get $at)))))
            (local.set $k (i32.add (local.get $k) (i32.const 1)))
            (br $entry)))
        (local.set $at (i32.add (local.get $into) (i32.shl (local.get $row) (i32.const 6))))
        (v128.store (local.get $at) (local.get $a))
        (v128.store offset=16 (local.get $at) (local.get $b))
        (v128.store offset=32 (local.get $at) (local.get $c))
        (v128.store offset=48 (local.get $at) (local.get $d))
        (local.set $rows (i32.add (local.get $rows) (i32.const 4)))
        (br $next))))

  ;; into[column] += value · from[row], for each of the rows listed
  (func (export "transposeTimes32")
    (param $rows i32) (param $count i32) (param $start i32) (param $stop i32) (param $offset i32)
    (param $value i32) (param $from i32) (param $into i32)
    (local $end i32) (local $row i32) (local $k i32) (local $last i32) (local $at i32) (local $by v128)
    (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local.set $end (i32.add (local.get $rows) (i32.shl (local.get $count) (i32.const 2))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $rows) (local.get $end)))
        (local.set $row (i32.load (local.get $rows)))
        (local.set $at (i32.add (local.get $from) (i32.shl (local.get $row) (i32.const 6))))
        (local.set $a (v128.load (local.get $at)))
        (local.set $b (v128.load offset=16 (local.get $at)))
        (local.set $c (v128.load offset=32 (local.get $at)))
        (local.set $d (v128.load offset=48 (local.get $at)))
        (local.set $at (i32.shl (local.get $row) (i32.const 2)))
        (local.set $k (i32.load (i32.add (local.get $start) (local.get $at))))
        (local.set $last (i32.load (i32.add (local.get $stop) (local.get $at))))
        (block $ended
          (loop $entry
            (br_if $ended (i32.ge_u (local.get $k) (local.get $last)))
            (local.set $by
              (v128.load32_splat (i32.add (local.get $value) (i32.shl (local.get $k) (i32.const 2)))))
            (local.set $at
              (i32.add
                (local.get $into)
                (i32.load (i32.add (local.get $offset) (i32.shl (local.get $k) (i32.const 2))))))
            (v128.store (local.get $at)
              (f32x4.add (v128.load (local.get $at)) (f32x4.mul (local.get $by) (local.get $a))))
            (v128.store offset=16 (local.get $at)
              (f32x4.add (v128.load offset=16 (local.get $at)) (f32x4.mul (local.get $by) (local.get $b))))
            (v128.store offset=32 (local.get $at)
              (f32x4.add (v128.load offset=32 (local.get $at)) (f32x4.mul (local.get $by) (local.get $c))))
            (v128.store offset=48 (local.get $at)
              (f32x4.add (v128.load offset=48 (local.get $at)) (f32x4.mul (local.get $by) (local.get $d))))
            (local.set $k (i32.add (local.get $k) (i32.const 1)))
            (br $entry)))
        (local.set $rows (i32.add (local.get $rows) (i32.const 4)))
        (br $next))))

  ;; into += leftᵀ · right of some rows of $width numbers of 32 bits each, a multiple of 16; of the sum, $width × $width
  ;; numbers of 64 bits, only the first $size rows, and of each what stands up to its diagonal and, at most 15 numbers,
  ;; beside it
  (func (export "addOuter")
    (param $left i32) (param $right i32) (param $rows i32) (param $width i32) (param $size i32) (param $into i32)
    (local $bytes i32) (local $end i32) (local $p i32) (local $q i32) (local $l i32) (local $r i32) (local $at i32)
    (local $by v128) (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local.set $bytes (i32.shl (local.get $width) (i32.const 2)))
    (block $done
      (loop $nextRow
        (br_if $done (i32.ge_u (local.get $p) (local.get $size)))
        (local.set $q (i32.const 0))
        (loop $nextColumns
          (local.set $l (i32.add (local.get $left) (i32.shl (local.get $p) (i32.const 2))))
          (local.set $r (i32.add (local.get $right) (i32.shl (local.get $q) (i32.const 2))))
          (local.set $end (i32.add (local.get $l) (i32.mul (local.get $rows) (local.get $bytes))))
          (local.set $a (v128.const f32x4 0 0 0 0))
          (local.set $b (v128.const f32x4 0 0 0 0))
          (local.set $c (v128.const f32x4 0 0 0 0))
          (local.set $d (v128.const f32x4 0 0 0 0))
          (block $summed
            (loop $next
              (br_if $summed (i32.ge_u (local.get $l) (local.get $end)))
              (local.set $by (v128.load32_splat (local.get $l)))
              (local.set $a
                (f32x4.add (local.get $a) (f32x4.mul (local.get $by) (v128.load offset=0 (local.get $r)))))
              (local.set $b
                (f32x4.add (local.get $b) (f32x4.mul (local.get $by) (v128.load offset=16 (local.get $r)))))
              (local.set $c
                (f32x4.add (local.get $c) (f32x4.mul (local.get $by) (v128.load offset=32 (local.get $r)))))
              (local.set $d
                (f32x4.add (local.get $d) (f32x4.mul (local.get $by) (v128.load offset=48 (local.get $r)))))
              (local.set $l (i32.add (local.get $l) (local.get $bytes)))
              (local.set $r (i32.add (local.get $r) (local.get $bytes)))
              (br $next)))
          (local.set $at
            (i32.add
              (local.get $into)
              (i32.shl
                (i32.add (i32.mul (local.get $p) (local.get $width)) (local.get $q))
                (i32.const 3))))
          (v128.store offset=0 (local.get $at)
            (f64x2.add (v128.load offset=0 (local.get $at)) (f64x2.promote_low_f32x4 (local.get $a))))
          (v128.store offset=16 (local.get $at)
            (f64x2.add
              (v128.load offset=16 (local.get $at))
              (f64x2.promote_low_f32x4
                (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $a) (local.get $a)))))
          (v128.store offset=32 (local.get $at)
            (f64x2.add (v128.load offset=32 (local.get $at)) (f64x2.promote_low_f32x4 (local.get $b))))
          (v128.store offset=48 (local.get $at)
            (f64x2.add
              (v128.load offset=48 (local.get $at))
              (f64x2.promote_low_f32x4
                (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $b) (local.get $b)))))
          (v128.store offset=64 (local.get $at)
            (f64x2.add (v128.load offset=64 (local.get $at)) (f64x2.promote_low_f32x4 (local.get $c))))
          (v128.store offset=80 (local.get $at)
            (f64x2.add
              (v128.load offset=80 (local.get $at))
              (f64x2.promote_low_f32x4
                (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $c) (local.get $c)))))
          (v128.store offset=96 (local.get $at)
            (f64x2.add (v128.load offset=96 (local.get $at)) (f64x2.promote_low_f32x4 (local.get $d))))
          (v128.store offset=112 (local.get $at)
            (f64x2.add
              (v128.load offset=112 (local.get $at))
              (f64x2.promote_low_f32x4
                (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $d) (local.get $d)))))
          (local.set $q (i32.add (local.get $q) (i32.const 16)))
          (br_if $nextColumns (i32.le_u (local.get $q) (local.get $p))))
        (local.set $p (i32.add (local.get $p) (i32.const 1)))
        (br $nextRow))))

  ;; One round of conjugate gradients for sixteen vectors of 32 bits, in steps: vectors are $bytes long, have sixteen
  ;; numbers a row, and stand side by side as above. What is one number a vector stands in sixteen of 32 bits; sums are
  ;; added to sixteen of 64.

  ;; reached = direction + root · further; sums += direction · reached
  (func (export "reach")
    (param $bytes i32) (param $direction i32) (param $root i32) (param $further i32) (param $reached i32)
    (param $sums i32)
    (local $at i32) (local $lane i32) (local $sum i32) (local $a v128) (local $b v128) (local $c v128)
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $at) (local.get $bytes)))
        (local.set $lane (i32.and (local.get $at) (i32.const 48)))
        (local.set $a (v128.load (i32.add (local.get $direction) (local.get $at))))
        (local.set $c
          (f32x4.add (local.get $a) (f32x4.mul (v128.load (i32.add (local.get $root) (local.get $at))) (v128.load (i32.add (local.get $further) (local.get $at))))))
        (v128.store (i32.add (local.get $reached) (local.get $at)) (local.get $c))
        (local.set $c (f32x4.mul (local.get $a) (local.get $c)))
        (local.set $sum (i32.add (local.get $sums) (i32.shl (local.get $lane) (i32.const 1))))
        (v128.store (local.get $sum)
          (f64x2.add (v128.load (local.get $sum)) (f64x2.promote_low_f32x4 (local.get $c))))
        (v128.store offset=16 (local.get $sum)
          (f64x2.add
            (v128.load offset=16 (local.get $sum))
            (f64x2.promote_low_f32x4
              (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $c) (local.get $c)))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (br $next))))

  ;; change += alpha · direction; product += alpha · further; residual −= alpha · reached;
  ;; conditioned = inverse · residual; further = rooted · residual
  (func (export "advance")
    (param $bytes i32) (param $alpha i32) (param $direction i32) (param $further i32) (param $reached i32)
    (param $change i32) (param $product i32) (param $residual i32) (param $inverse i32) (param $rooted i32)
    (param $conditioned i32)
    (local $at i32) (local $lane i32) (local $a v128) (local $b v128)
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $at) (local.get $bytes)))
        (local.set $lane (i32.and (local.get $at) (i32.const 48)))
        (local.set $a (v128.load (i32.add (local.get $alpha) (local.get $lane))))
        (v128.store (i32.add (local.get $change) (local.get $at))
          (f32x4.add (v128.load (i32.add (local.get $change) (local.get $at))) (f32x4.mul (local.get $a) (v128.load (i32.add (local.get $direction) (local.get $at))))))
        (v128.store (i32.add (local.get $product) (local.get $at))
          (f32x4.add (v128.load (i32.add (local.get $product) (local.get $at))) (f32x4.mul (local.get $a) (v128.load (i32.add (local.get $further) (local.get $at))))))
        (local.set $b
          (f32x4.sub (v128.load (i32.add (local.get $residual) (local.get $at))) (f32x4.mul (local.get $a) (v128.load (i32.add (local.get $reached) (local.get $at))))))
        (v128.store (i32.add (local.get $residual) (local.get $at)) (local.get $b))
        (v128.store (i32.add (local.get $conditioned) (local.get $at)) (f32x4.mul (v128.load (i32.add (local.get $inverse) (local.get $at))) (local.get $b)))
        (v128.store (i32.add (local.get $further) (local.get $at)) (f32x4.mul (v128.load (i32.add (local.get $rooted) (local.get $at))) (local.get $b)))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (br $next))))

  ;; conditioned −= rooted · back; sums += root · conditioned
  (func (export "subtractBack")
    (param $bytes i32) (param $conditioned i32) (param $rooted i32) (param $back i32) (param $root i32)
    (param $sums i32)
    (local $at i32) (local $lane i32) (local $sum i32) (local $a v128) (local $c v128)
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $at) (local.get $bytes)))
        (local.set $lane (i32.and (local.get $at) (i32.const 48)))
        (local.set $a
          (f32x4.sub (v128.load (i32.add (local.get $conditioned) (local.get $at))) (f32x4.mul (v128.load (i32.add (local.get $rooted) (local.get $at))) (v128.load (i32.add (local.get $back) (local.get $at))))))
        (v128.store (i32.add (local.get $conditioned) (local.get $at)) (local.get $a))
        (local.set $c (f32x4.mul (v128.load (i32.add (local.get $root) (local.get $at))) (local.get $a)))
        (local.set $sum (i32.add (local.get $sums) (i32.shl (local.get $lane) (i32.const 1))))
        (v128.store (local.get $sum)
          (f64x2.add (v128.load (local.get $sum)) (f64x2.promote_low_f32x4 (local.get $c))))
        (v128.store offset=16 (local.get $sum)
          (f64x2.add
            (v128.load offset=16 (local.get $sum))
            (f64x2.promote_low_f32x4
              (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $c) (local.get $c)))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (br $next))))

  ;; residual −= more · root; conditioned −= more · divided; sums += residual · conditioned
  (func (export "project")
    (param $bytes i32) (param $more i32) (param $residual i32) (param $root i32) (param $conditioned i32)
    (param $divided i32) (param $sums i32)
    (local $at i32) (local $lane i32) (local $sum i32) (local $a v128) (local $b v128) (local $c v128)
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $at) (local.get $bytes)))
        (local.set $lane (i32.and (local.get $at) (i32.const 48)))
        (local.set $c (v128.load (i32.add (local.get $more) (local.get $lane))))
        (local.set $a (f32x4.sub (v128.load (i32.add (local.get $residual) (local.get $at))) (f32x4.mul (local.get $c) (v128.load (i32.add (local.get $root) (local.get $at))))))
        (v128.store (i32.add (local.get $residual) (local.get $at)) (local.get $a))
        (local.set $b (f32x4.sub (v128.load (i32.add (local.get $conditioned) (local.get $at))) (f32x4.mul (local.get $c) (v128.load (i32.add (local.get $divided) (local.get $at))))))
        (v128.store (i32.add (local.get $conditioned) (local.get $at)) (local.get $b))
        (local.set $c (f32x4.mul (local.get $a) (local.get $b)))
        (local.set $sum (i32.add (local.get $sums) (i32.shl (local.get $lane) (i32.const 1))))
        (v128.store (local.get $sum)
          (f64x2.add (v128.load (local.get $sum)) (f64x2.promote_low_f32x4 (local.get $c))))
        (v128.store offset=16 (local.get $sum)
          (f64x2.add
            (v128.load offset=16 (local.get $sum))
            (f64x2.promote_low_f32x4
              (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $c) (local.get $c)))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (br $next))))

  ;; direction = conditioned + beta · direction; scaled = root · direction
  (func (export "turnDirection")
    (param $bytes i32) (param $beta i32) (param $direction i32) (param $conditioned i32) (param $root i32)
    (param $scaled i32)
    (local $at i32) (local $lane i32) (local $a v128)
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $at) (local.get $bytes)))
        (local.set $lane (i32.and (local.get $at) (i32.const 48)))
        (local.set $a
          (f32x4.add (v128.load (i32.add (local.get $conditioned) (local.get $at))) (f32x4.mul (v128.load (i32.add (local.get $beta) (local.get $lane))) (v128.load (i32.add (local.get $direction) (local.get $at))))))
        (v128.store (i32.add (local.get $direction) (local.get $at)) (local.get $a))
        (v128.store (i32.add (local.get $scaled) (local.get $at)) (f32x4.mul (v128.load (i32.add (local.get $root) (local.get $at))) (local.get $a)))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (br $next))))

  ;; L · Lᵀ · x = right for sixteen lower triangles of $size rows, row after row, in the place of right
  (func (export "solveTriangles")
    (param $size i32) (param $lower i32) (param $right i32)
    (local $l i32) (local $r i32) (local $to i32) (local $end i32)
    (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local.set $end (i32.add (local.get $right) (i32.shl (local.get $size) (i32.const 6))))
    (local.set $l (local.get $lower))
    (local.set $to (local.get $right))
    (block $down
      (loop $nextRow
        (br_if $down (i32.ge_u (local.get $to) (local.get $end)))
        (local.set $a (v128.load (local.get $to)))
        (local.set $b (v128.load offset=16 (local.get $to)))
        (local.set $c (v128.load offset=32 (local.get $to)))
        (local.set $d (v128.load offset=48 (local.get $to)))
        (local.set $r (local.get $right))
        (block $summed
          (loop $next
            (br_if $summed (i32.ge_u (local.get $r) (local.get $to)))
            (local.set $a (f32x4.sub (local.get $a) (f32x4.mul (v128.load (local.get $l)) (v128.load (local.get $r)))))
            (local.set $b (f32x4.sub (local.get $b) (f32x4.mul (v128.load offset=16 (local.get $l)) (v128.load offset=16 (local.get $r)))))
            (local.set $c (f32x4.sub (local.get $c) (f32x4.mul (v128.load offset=32 (local.get $l)) (v128.load offset=32 (local.get $r)))))
            (local.set $d (f32x4.sub (local.get $d) (f32x4.mul (v128.load offset=48 (local.get $l)) (v128.load offset=48 (local.get $r)))))
            (local.set $l (i32.add (local.get $l) (i32.const 64)))
            (local.set $r (i32.add (local.get $r) (i32.const 64)))
            (br $next)))
        (local.set $a (f32x4.div (local.get $a) (v128.load (local.get $l))))
        (local.set $b (f32x4.div (local.get $b) (v128.load offset=16 (local.get $l))))
        (local.set $c (f32x4.div (local.get $c) (v128.load offset=32 (local.get $l))))
        (local.set $d (f32x4.div (local.get $d) (v128.load offset=48 (local.get $l))))
        (v128.store (local.get $to) (local.get $a))
        (v128.store offset=16 (local.get $to) (local.get $b))
        (v128.store offset=32 (local.get $to) (local.get $c))
        (v128.store offset=48 (local.get $to) (local.get $d))
        (local.set $l (i32.add (local.get $l) (i32.const 64)))
        (local.set $to (i32.add (local.get $to) (i32.const 64)))
        (br $nextRow)))
    ;; upwards: each row is taken from those before it, as it lies in memory
    (block $up
      (loop $nextRow
        (br_if $up (i32.le_u (local.get $to) (local.get $right)))
        (local.set $to (i32.sub (local.get $to) (i32.const 64)))
        (local.set $l (i32.sub (local.get $l) (i32.const 64)))
        (local.set $a (v128.load (local.get $to)))
        (local.set $b (v128.load offset=16 (local.get $to)))
        (local.set $c (v128.load offset=32 (local.get $to)))
        (local.set $d (v128.load offset=48 (local.get $to)))
        (local.set $a (f32x4.div (local.get $a) (v128.load (local.get $l))))
        (local.set $b (f32x4.div (local.get $b) (v128.load offset=16 (local.get $l))))
        (local.set $c (f32x4.div (local.get $c) (v128.load offset=32 (local.get $l))))
        (local.set $d (f32x4.div (local.get $d) (v128.load offset=48 (local.get $l))))
        (v128.store (local.get $to) (local.get $a))
        (v128.store offset=16 (local.get $to) (local.get $b))
        (v128.store offset=32 (local.get $to) (local.get $c))
        (v128.store offset=48 (local.get $to) (local.get $d))
        (local.set $l (i32.sub (local.get $l) (i32.sub (local.get $to) (local.get $right))))
        (local.set $r (local.get $right))
        (block $taken
          (loop $next
            (br_if $taken (i32.ge_u (local.get $r) (local.get $to)))
            (v128.store (local.get $r)
              (f32x4.sub (v128.load (local.get $r)) (f32x4.mul (v128.load (local.get $l)) (local.get $a))))
            (v128.store offset=16 (local.get $r)
              (f32x4.sub (v128.load offset=16 (local.get $r)) (f32x4.mul (v128.load offset=16 (local.get $l)) (local.get $b))))
            (v128.store offset=32 (local.get $r)
              (f32x4.sub (v128.load offset=32 (local.get $r)) (f32x4.mul (v128.load offset=32 (local.get $l)) (local.get $c))))
            (v128.store offset=48 (local.get $r)
              (f32x4.sub (v128.load offset=48 (local.get $r)) (f32x4.mul (v128.load offset=48 (local.get $l)) (local.get $d))))
            (local.set $l (i32.add (local.get $l) (i32.const 64)))
            (local.set $r (i32.add (local.get $r) (i32.const 64)))
            (br $next)))
        (local.set $l (i32.sub (local.get $l) (i32.sub (local.get $to) (local.get $right))))
        (br $nextRow))))

  ;; into += by · from, of $bytes of numbers of 32 bits, into as many of 64
  (func (export "addScaled")
    (param $bytes i32) (param $from i32) (param $into i32) (param $by f64)
    (local $end i32) (local $times v128) (local $a v128)
    (local.set $times (f64x2.splat (local.get $by)))
    (local.set $end (i32.add (local.get $from) (local.get $bytes)))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $from) (local.get $end)))
        (local.set $a (v128.load (local.get $from)))
        (v128.store (local.get $into)
          (f64x2.add
            (v128.load (local.get $into))
            (f64x2.mul (local.get $times) (f64x2.promote_low_f32x4 (local.get $a)))))
        (v128.store offset=16 (local.get $into)
          (f64x2.add
            (v128.load offset=16 (local.get $into))
            (f64x2.mul
              (local.get $times)
              (f64x2.promote_low_f32x4
                (i8x16.shuffle 8 9 10 11 12 13 14 15 8 9 10 11 12 13 14 15 (local.get $a) (local.get $a))))))
        (local.set $from (i32.add (local.get $from) (i32.const 16)))
        (local.set $into (i32.add (local.get $into) (i32.const 32)))
        (br $next))))

  ;; The same for sixteen where every row has a number in each of $size columns, the first ones: numbers stand row after
  ;; row, 32 bits each. $rows is even: two rows go through the columns together.

  ;; into[row] = Σ value · from[column]
  (func (export "denseTimes")
    (param $rows i32) (param $size i32) (param $value i32) (param $from i32) (param $into i32)
    (local $bytes i32) (local $end i32) (local $last i32) (local $at i32) (local $by v128) (local $other v128)
    (local $line v128) (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local $e v128) (local $f v128) (local $g v128) (local $h v128)
    (local.set $bytes (i32.shl (local.get $size) (i32.const 2)))
    (local.set $end (i32.add (local.get $value) (i32.mul (local.get $rows) (local.get $bytes))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $value) (local.get $end)))
        (local.set $last (i32.add (local.get $value) (local.get $bytes)))
        (local.set $at (local.get $from))
        (local.set $a (v128.const f32x4 0 0 0 0))
        (local.set $b (v128.const f32x4 0 0 0 0))
        (local.set $c (v128.const f32x4 0 0 0 0))
        (local.set $d (v128.const f32x4 0 0 0 0))
        (local.set $e (v128.const f32x4 0 0 0 0))
        (local.set $f (v128.const f32x4 0 0 0 0))
        (local.set $g (v128.const f32x4 0 0 0 0))
        (local.set $h (v128.const f32x4 0 0 0 0))
        (loop $entry
          (local.set $by (v128.load32_splat (local.get $value)))
          (local.set $other (v128.load32_splat (i32.add (local.get $value) (local.get $bytes))))
          (local.set $line (v128.load (local.get $at)))
          (local.set $a (f32x4.add (local.get $a) (f32x4.mul (local.get $by) (local.get $line))))
          (local.set $e (f32x4.add (local.get $e) (f32x4.mul (local.get $other) (local.get $line))))
          (local.set $line (v128.load offset=16 (local.get $at)))
          (local.set $b (f32x4.add (local.get $b) (f32x4.mul (local.get $by) (local.get $line))))
          (local.set $f (f32x4.add (local.get $f) (f32x4.mul (local.get $other) (local.get $line))))
          (local.set $line (v128.load offset=32 (local.get $at)))
          (local.set $c (f32x4.add (local.get $c) (f32x4.mul (local.get $by) (local.get $line))))
          (local.set $g (f32x4.add (local.get $g) (f32x4.mul (local.get $other) (local.get $line))))
          (local.set $line (v128.load offset=48 (local.get $at)))
          (local.set $d (f32x4.add (local.get $d) (f32x4.mul (local.get $by) (local.get $line))))
          (local.set $h (f32x4.add (local.get $h) (f32x4.mul (local.get $other) (local.get $line))))
          (local.set $value (i32.add (local.get $value) (i32.const 4)))
          (local.set $at (i32.add (local.get $at) (i32.const 64)))
          (br_if $entry (i32.lt_u (local.get $value) (local.get $last))))
        (v128.store (local.get $into) (local.get $a))
        (v128.store offset=16 (local.get $into) (local.get $b))
        (v128.store offset=32 (local.get $into) (local.get $c))
        (v128.store offset=48 (local.get $into) (local.get $d))
        (v128.store offset=64 (local.get $into) (local.get $e))
        (v128.store offset=80 (local.get $into) (local.get $f))
        (v128.store offset=96 (local.get $into) (local.get $g))
        (v128.store offset=112 (local.get $into) (local.get $h))
        (local.set $value (i32.add (local.get $last) (local.get $bytes)))
        (local.set $into (i32.add (local.get $into) (i32.const 128)))
        (br $next))))

  ;; into[column] += value · from[row]
  (func (export "denseTransposeTimes")
    (param $rows i32) (param $size i32) (param $value i32) (param $from i32) (param $into i32)
    (local $bytes i32) (local $end i32) (local $last i32) (local $at i32) (local $by v128) (local $other v128)
    (local $a v128) (local $b v128) (local $c v128) (local $d v128)
    (local $e v128) (local $f v128) (local $g v128) (local $h v128)
    (local.set $bytes (i32.shl (local.get $size) (i32.const 2)))
    (local.set $end (i32.add (local.get $value) (i32.mul (local.get $rows) (local.get $bytes))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_u (local.get $value) (local.get $end)))
        (local.set $last (i32.add (local.get $value) (local.get $bytes)))
        (local.set $at (local.get $into))
        (local.set $a (v128.load (local.get $from)))
        (local.set $b (v128.load offset=16 (local.get $from)))
        (local.set $c (v128.load offset=32 (local.get $from)))
        (local.set $d (v128.load offset=48 (local.get $from)))
        (local.set $e (v128.load offset=64 (local.get $from)))
        (local.set $f (v128.load offset=80 (local.get $from)))
        (local.set $g (v128.load offset=96 (local.get $from)))
        (local.set $h (v128.load offset=112 (local.get $from)))
        (loop $entry
          (local.set $by (v128.load32_splat (local.get $value)))
          (local.set $other (v128.load32_splat (i32.add (local.get $value) (local.get $bytes))))
          (v128.store (local.get $at)
            (f32x4.add
              (f32x4.add (v128.load (local.get $at)) (f32x4.mul (local.get $by) (local.get $a)))
              (f32x4.mul (local.get $other) (local.get $e))))
          (v128.store offset=16 (local.get $at)
            (f32x4.add
              (f32x4.add (v128.load offset=16 (local.get $at)) (f32x4.mul (local.get $by) (local.get $b)))
              (f32x4.mul (local.get $other) (local.get $f))))
          (v128.store offset=32 (local.get $at)
            (f32x4.add
              (f32x4.add (v128.load offset=32 (local.get $at)) (f32x4.mul (local.get $by) (local.get $c)))
              (f32x4.mul (local.get $other) (local.get $g))))
          (v128.store offset=48 (local.get $at)
            (f32x4.add
              (f32x4.add (v128.load offset=48 (local.get $at)) (f32x4.mul (local.get $by) (local.get $d)))
              (f32x4.mul (local.get $other) (local.get $h))))
          (local.set $value (i32.add (local.get $value) (i32.const 4)))
          (local.set $at (i32.add (local.get $at) (i32.const 64)))
          (br_if $entry (i32.lt_u (local.get $value) (local.get $last))))
        (local.set $value (i32.add (local.get $last) (local.get $bytes)))
        (local.set $from (i32.add (local.get $from) (i32.const 128)))
        (br $next))))
)
