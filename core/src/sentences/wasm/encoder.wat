;; The products of a transformer's layers, in whole numbers of 16 bits with a scale a row and a scale a column, and what
;; its attention sums. All places are in memory in bytes. A row of a result depends on nothing but its own row of numbers,
;; and its sums run in the order of the columns, so that a text's vector is the same whatever is read beside it.
(module
  (memory (export "memory") 1)

  ;; whole[row][i] = number[row][i] / scale[row], rounded, for rows of `count` numbers, a multiple of 32. The scale is as
  ;; small as 16 bits allow and as keeps the length of every 32 whole numbers below `longest`: then their product with
  ;; a column's is within 32 bits (Cauchy and Schwarz).
  (func (export "roundRows")
    (param $from i32) (param $into i32) (param $scale i32) (param $rows i32) (param $count i32) (param $longest f32)
    (local $end i32) (local $blockEnd i32) (local $at i32) (local $x v128) (local $y v128)
    (local $squares v128) (local $largest v128) (local $longestBlock f32) (local $most f32) (local $one f32)
    (loop $row
      (local.set $end (i32.add (local.get $from) (i32.shl (local.get $count) (i32.const 2))))
      (local.set $largest (v128.const f32x4 0 0 0 0))
      (local.set $longestBlock (f32.const 0))
      (local.set $at (local.get $from))
      (loop $block
        (local.set $blockEnd (i32.add (local.get $at) (i32.const 128)))
        (local.set $squares (v128.const f32x4 0 0 0 0))
        (loop $four
          (local.set $x (v128.load (local.get $at)))
          (local.set $squares (f32x4.add (local.get $squares) (f32x4.mul (local.get $x) (local.get $x))))
          (local.set $largest (f32x4.max (local.get $largest) (f32x4.abs (local.get $x))))
          (local.set $at (i32.add (local.get $at) (i32.const 16)))
          (br_if $four (i32.lt_u (local.get $at) (local.get $blockEnd))))
        (local.set $longestBlock
          (f32.max
            (local.get $longestBlock)
            (f32.add
              (f32.add (f32x4.extract_lane 0 (local.get $squares)) (f32x4.extract_lane 1 (local.get $squares)))
              (f32.add (f32x4.extract_lane 2 (local.get $squares)) (f32x4.extract_lane 3 (local.get $squares))))))
        (br_if $block (i32.lt_u (local.get $at) (local.get $end))))
      (local.set $most
        (f32.max
          (f32.max (f32x4.extract_lane 0 (local.get $largest)) (f32x4.extract_lane 1 (local.get $largest)))
          (f32.max (f32x4.extract_lane 2 (local.get $largest)) (f32x4.extract_lane 3 (local.get $largest)))))
      (local.set $one
        (f32.max
          (f32.const 1e-30)
          (f32.max
            (f32.div (local.get $most) (f32.const 32767))
            (f32.div (f32.sqrt (local.get $longestBlock)) (local.get $longest)))))
      (f32.store (local.get $scale) (local.get $one))
      (local.set $y (f32x4.splat (f32.div (f32.const 1) (local.get $one))))
      (loop $eight
        (v128.store
          (local.get $into)
          (i16x8.narrow_i32x4_s
            (i32x4.trunc_sat_f32x4_s (f32x4.nearest (f32x4.mul (local.get $y) (v128.load (local.get $from)))))
            (i32x4.trunc_sat_f32x4_s
              (f32x4.nearest (f32x4.mul (local.get $y) (v128.load offset=16 (local.get $from)))))))
        (local.set $from (i32.add (local.get $from) (i32.const 32)))
        (local.set $into (i32.add (local.get $into) (i32.const 16)))
        (br_if $eight (i32.lt_u (local.get $from) (local.get $end))))
      (local.set $scale (i32.add (local.get $scale) (i32.const 4)))
      (local.set $rows (i32.sub (local.get $rows) (i32.const 1)))
      (br_if $row (i32.gt_s (local.get $rows) (i32.const 0)))))

  ;; out[row][column] = max(floor, bias[column] + scale[row] · scale[column] · Σ whole[row][i] · weight[i][column]), for a
  ;; multiple of four rows and of eight columns, and sums over a multiple of 32. Weights of eight columns stand together:
  ;; of i and i + 1 side by side, column by column.
  (func (export "multiply")
    (param $rows i32) (param $wholes i32) (param $rowScales i32) (param $inner i32)
    (param $weight i32) (param $columnScale i32) (param $bias i32) (param $columns i32)
    (param $into i32) (param $floor f32)
    (local $rowBytes i32) (local $outBytes i32) (local $panelBytes i32) (local $lastColumn i32) (local $row i32)
    (local $row0 i32) (local $row1 i32) (local $row2 i32) (local $row3 i32)
    (local $rowScale i32) (local $at i32) (local $stop i32) (local $blockStop i32) (local $w i32) (local $out i32)
    (local $left v128) (local $right v128) (local $by v128) (local $least v128)
    (local $biasLeft v128) (local $biasRight v128)
    (local $s00 v128) (local $s01 v128) (local $s10 v128) (local $s11 v128) (local $s20 v128) (local $s21 v128) (local $s30 v128) (local $s31 v128)
    (local $f00 v128) (local $f01 v128) (local $f10 v128) (local $f11 v128) (local $f20 v128) (local $f21 v128) (local $f30 v128) (local $f31 v128)
    (local.set $rowBytes (i32.shl (local.get $inner) (i32.const 1)))
    (local.set $outBytes (i32.shl (local.get $columns) (i32.const 2)))
    (local.set $panelBytes (i32.shl (local.get $inner) (i32.const 4)))
    (local.set $row1 (local.get $rowBytes))
    (local.set $row2 (i32.shl (local.get $rowBytes) (i32.const 1)))
    (local.set $row3 (i32.add (local.get $row1) (local.get $row2)))
    (local.set $least (f32x4.splat (local.get $floor)))
    (local.set $lastColumn (i32.add (local.get $into) (local.get $outBytes)))
    (loop $panel
      (local.set $biasLeft (v128.load (local.get $bias)))
      (local.set $biasRight (v128.load offset=16 (local.get $bias)))
      (local.set $row (i32.const 0))
      (local.set $stop (local.get $wholes))
      (local.set $rowScale (local.get $rowScales))
      (local.set $out (local.get $into))
      (loop $four
        (local.set $at (local.get $stop))
        (local.set $stop (i32.add (local.get $at) (local.get $rowBytes)))
        (local.set $w (local.get $weight))
          (local.set $f00 (v128.const i32x4 0 0 0 0))
          (local.set $f01 (v128.const i32x4 0 0 0 0))
          (local.set $f10 (v128.const i32x4 0 0 0 0))
          (local.set $f11 (v128.const i32x4 0 0 0 0))
          (local.set $f20 (v128.const i32x4 0 0 0 0))
          (local.set $f21 (v128.const i32x4 0 0 0 0))
          (local.set $f30 (v128.const i32x4 0 0 0 0))
          (local.set $f31 (v128.const i32x4 0 0 0 0))
        (loop $block
          (local.set $blockStop (i32.add (local.get $at) (i32.const 64)))
          (local.set $s00 (v128.const i32x4 0 0 0 0))
          (local.set $s01 (v128.const i32x4 0 0 0 0))
          (local.set $s10 (v128.const i32x4 0 0 0 0))
          (local.set $s11 (v128.const i32x4 0 0 0 0))
          (local.set $s20 (v128.const i32x4 0 0 0 0))
          (local.set $s21 (v128.const i32x4 0 0 0 0))
          (local.set $s30 (v128.const i32x4 0 0 0 0))
          (local.set $s31 (v128.const i32x4 0 0 0 0))
          (loop $pair
            (local.set $left (v128.load (local.get $w)))
            (local.set $right (v128.load offset=16 (local.get $w)))
            (local.set $by (v128.load32_splat (i32.add (local.get $at) (local.get $row0))))
            (local.set $s00
              (i32x4.add (local.get $s00) (i32x4.dot_i16x8_s (local.get $by) (local.get $left))))
            (local.set $s01
              (i32x4.add (local.get $s01) (i32x4.dot_i16x8_s (local.get $by) (local.get $right))))
            (local.set $by (v128.load32_splat (i32.add (local.get $at) (local.get $row1))))
            (local.set $s10
              (i32x4.add (local.get $s10) (i32x4.dot_i16x8_s (local.get $by) (local.get $left))))
            (local.set $s11
              (i32x4.add (local.get $s11) (i32x4.dot_i16x8_s (local.get $by) (local.get $right))))
            (local.set $by (v128.load32_splat (i32.add (local.get $at) (local.get $row2))))
            (local.set $s20
              (i32x4.add (local.get $s20) (i32x4.dot_i16x8_s (local.get $by) (local.get $left))))
            (local.set $s21
              (i32x4.add (local.get $s21) (i32x4.dot_i16x8_s (local.get $by) (local.get $right))))
            (local.set $by (v128.load32_splat (i32.add (local.get $at) (local.get $row3))))
            (local.set $s30
              (i32x4.add (local.get $s30) (i32x4.dot_i16x8_s (local.get $by) (local.get $left))))
            (local.set $s31
              (i32x4.add (local.get $s31) (i32x4.dot_i16x8_s (local.get $by) (local.get $right))))
            (local.set $w (i32.add (local.get $w) (i32.const 32)))
            (local.set $at (i32.add (local.get $at) (i32.const 4)))
            (br_if $pair (i32.lt_u (local.get $at) (local.get $blockStop))))
          (local.set $f00
            (f32x4.add (local.get $f00) (f32x4.convert_i32x4_s (local.get $s00))))
          (local.set $f01
            (f32x4.add (local.get $f01) (f32x4.convert_i32x4_s (local.get $s01))))
          (local.set $f10
            (f32x4.add (local.get $f10) (f32x4.convert_i32x4_s (local.get $s10))))
          (local.set $f11
            (f32x4.add (local.get $f11) (f32x4.convert_i32x4_s (local.get $s11))))
          (local.set $f20
            (f32x4.add (local.get $f20) (f32x4.convert_i32x4_s (local.get $s20))))
          (local.set $f21
            (f32x4.add (local.get $f21) (f32x4.convert_i32x4_s (local.get $s21))))
          (local.set $f30
            (f32x4.add (local.get $f30) (f32x4.convert_i32x4_s (local.get $s30))))
          (local.set $f31
            (f32x4.add (local.get $f31) (f32x4.convert_i32x4_s (local.get $s31))))
          (br_if $block (i32.lt_u (local.get $at) (local.get $stop))))
        (local.set $left (v128.load (local.get $columnScale)))
        (local.set $right (v128.load offset=16 (local.get $columnScale)))
        (local.set $by (v128.load32_splat offset=0 (local.get $rowScale)))
        (v128.store
          (local.get $out)
          (f32x4.max
            (local.get $least)
            (f32x4.add
              (local.get $biasLeft)
              (f32x4.mul (f32x4.mul (local.get $left) (local.get $by)) (local.get $f00)))))
        (v128.store offset=16
          (local.get $out)
          (f32x4.max
            (local.get $least)
            (f32x4.add
              (local.get $biasRight)
              (f32x4.mul (f32x4.mul (local.get $right) (local.get $by)) (local.get $f01)))))
        (local.set $out (i32.add (local.get $out) (local.get $outBytes)))
        (local.set $by (v128.load32_splat offset=4 (local.get $rowScale)))
        (v128.store
          (local.get $out)
          (f32x4.max
            (local.get $least)
            (f32x4.add
              (local.get $biasLeft)
              (f32x4.mul (f32x4.mul (local.get $left) (local.get $by)) (local.get $f10)))))
        (v128.store offset=16
          (local.get $out)
          (f32x4.max
            (local.get $least)
            (f32x4.add
              (local.get $biasRight)
              (f32x4.mul (f32x4.mul (local.get $right) (local.get $by)) (local.get $f11)))))
        (local.set $out (i32.add (local.get $out) (local.get $outBytes)))
        (local.set $by (v128.load32_splat offset=8 (local.get $rowScale)))
        (v128.store
          (local.get $out)
          (f32x4.max
            (local.get $least)
            (f32x4.add
              (local.get $biasLeft)
              (f32x4.mul (f32x4.mul (local.get $left) (local.get $by)) (local.get $f20)))))
        (v128.store offset=16
          (local.get $out)
          (f32x4.max
            (local.get $least)
            (f32x4.add
              (local.get $biasRight)
              (f32x4.mul (f32x4.mul (local.get $right) (local.get $by)) (local.get $f21)))))
        (local.set $out (i32.add (local.get $out) (local.get $outBytes)))
        (local.set $by (v128.load32_splat offset=12 (local.get $rowScale)))
        (v128.store
          (local.get $out)
          (f32x4.max
            (local.get $least)
            (f32x4.add
              (local.get $biasLeft)
              (f32x4.mul (f32x4.mul (local.get $left) (local.get $by)) (local.get $f30)))))
        (v128.store offset=16
          (local.get $out)
          (f32x4.max
            (local.get $least)
            (f32x4.add
              (local.get $biasRight)
              (f32x4.mul (f32x4.mul (local.get $right) (local.get $by)) (local.get $f31)))))
        (local.set $out (i32.add (local.get $out) (local.get $outBytes)))
        (local.set $stop (i32.add (local.get $stop) (local.get $row3)))
        (local.set $rowScale (i32.add (local.get $rowScale) (i32.const 16)))
        (local.set $row (i32.add (local.get $row) (i32.const 4)))
        (br_if $four (i32.lt_u (local.get $row) (local.get $rows))))
      (local.set $weight (i32.add (local.get $weight) (local.get $panelBytes)))
      (local.set $columnScale (i32.add (local.get $columnScale) (i32.const 32)))
      (local.set $bias (i32.add (local.get $bias) (i32.const 32)))
      (local.set $into (i32.add (local.get $into) (i32.const 32)))
      (br_if $panel (i32.lt_u (local.get $into) (local.get $lastColumn)))))

  ;; score[t][u] = Σ query[t][i] · key[u][i], for `count` queries and `keys` keys whose numbers stand `stride` bytes apart;
  ;; `size` bytes of them are multiplied, a multiple of 32
  (func (export "scoreTokens")
    (param $query i32) (param $key i32) (param $into i32) (param $count i32) (param $keys i32)
    (param $stride i32) (param $size i32)
    (local $t i32) (local $u i32) (local $other i32) (local $i i32) (local $a v128) (local $b v128)
    (loop $token
      (local.set $other (local.get $key))
      (local.set $u (i32.const 0))
      (loop $to
        (local.set $a (v128.const f32x4 0 0 0 0))
        (local.set $b (v128.const f32x4 0 0 0 0))
        (local.set $i (i32.const 0))
        (loop $eight
          (local.set $a
            (f32x4.add
              (local.get $a)
              (f32x4.mul
                (v128.load (i32.add (local.get $query) (local.get $i)))
                (v128.load (i32.add (local.get $other) (local.get $i))))))
          (local.set $b
            (f32x4.add
              (local.get $b)
              (f32x4.mul
                (v128.load offset=16 (i32.add (local.get $query) (local.get $i)))
                (v128.load offset=16 (i32.add (local.get $other) (local.get $i))))))
          (local.set $i (i32.add (local.get $i) (i32.const 32)))
          (br_if $eight (i32.lt_u (local.get $i) (local.get $size))))
        (local.set $a (f32x4.add (local.get $a) (local.get $b)))
        (f32.store
          (local.get $into)
          (f32.add
            (f32.add (f32x4.extract_lane 0 (local.get $a)) (f32x4.extract_lane 1 (local.get $a)))
            (f32.add (f32x4.extract_lane 2 (local.get $a)) (f32x4.extract_lane 3 (local.get $a)))))
        (local.set $into (i32.add (local.get $into) (i32.const 4)))
        (local.set $other (i32.add (local.get $other) (local.get $stride)))
        (local.set $u (i32.add (local.get $u) (i32.const 1)))
        (br_if $to (i32.lt_u (local.get $u) (local.get $keys))))
      (local.set $query (i32.add (local.get $query) (local.get $stride)))
      (local.set $t (i32.add (local.get $t) (i32.const 1)))
      (br_if $token (i32.lt_u (local.get $t) (local.get $count)))))

  ;; into[t][i] = Σ share[t][u] · value[u][i], for `count` tokens whose values stand `stride` bytes apart and whose results
  ;; `intoStride`; `size` bytes of them, a multiple of 32
  (func (export "mixTokens")
    (param $share i32) (param $value i32) (param $into i32) (param $count i32)
    (param $stride i32) (param $intoStride i32) (param $size i32)
    (local $t i32) (local $u i32) (local $at i32) (local $from i32) (local $i i32)
    (local $a v128) (local $b v128) (local $by v128)
    (loop $token
      (local.set $i (i32.const 0))
      (loop $eight
        (local.set $a (v128.const f32x4 0 0 0 0))
        (local.set $b (v128.const f32x4 0 0 0 0))
        (local.set $at (local.get $share))
        (local.set $from (i32.add (local.get $value) (local.get $i)))
        (local.set $u (i32.const 0))
        (loop $of
          (local.set $by (v128.load32_splat (local.get $at)))
          (local.set $a
            (f32x4.add (local.get $a) (f32x4.mul (local.get $by) (v128.load (local.get $from)))))
          (local.set $b
            (f32x4.add (local.get $b) (f32x4.mul (local.get $by) (v128.load offset=16 (local.get $from)))))
          (local.set $at (i32.add (local.get $at) (i32.const 4)))
          (local.set $from (i32.add (local.get $from) (local.get $stride)))
          (local.set $u (i32.add (local.get $u) (i32.const 1)))
          (br_if $of (i32.lt_u (local.get $u) (local.get $count))))
        (v128.store (i32.add (local.get $into) (local.get $i)) (local.get $a))
        (v128.store offset=16 (i32.add (local.get $into) (local.get $i)) (local.get $b))
        (local.set $i (i32.add (local.get $i) (i32.const 32)))
        (br_if $eight (i32.lt_u (local.get $i) (local.get $size))))
      (local.set $share (local.get $at))
      (local.set $into (i32.add (local.get $into) (local.get $intoStride)))
      (local.set $t (i32.add (local.get $t) (i32.const 1)))
      (br_if $token (i32.lt_u (local.get $t) (local.get $count))))))
